package polymetron.server.guard;

import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import polymetron.address.Address;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ObjectNode;

/** Problem documents (RFC 9457) for requests that are refused before Spring sees them. */
public final class Problems {
    static final String MEDIA_TYPE = "application/problem+json";
    private static final JsonMapper MAPPER = new JsonMapper();

    private Problems() {}

    static String text(int status, String title, String detail) {
        ObjectNode problem = MAPPER.createObjectNode();
        problem.put("title", title);
        problem.put("status", status);
        problem.put("detail", detail);
        return problem.toString();
    }

    static void write(HttpServletResponse response, int status, String title, String detail)
            throws IOException {
        response.setStatus(status);
        response.setContentType(MEDIA_TYPE);
        response.getOutputStream()
                .write(text(status, title, detail).getBytes(StandardCharsets.UTF_8));
    }

    static void tooLarge(HttpServletResponse response, long limit) throws IOException {
        // What is still on its way is not read.
        response.setHeader("Connection", "close");
        write(response, 413, "Too large", tooLargeDetail(limit));
    }

    /** Says how much is allowed. */
    public static String tooLargeDetail(long limit) {
        return "The body is larger than the %s allowed here; nothing was stored"
                .formatted(Address.formatSize(limit));
    }
}
