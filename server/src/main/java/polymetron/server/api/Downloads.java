package polymetron.server.api;

import org.springframework.http.ContentDisposition;

/** How files leave the server. */
public final class Downloads {
    private Downloads() {}

    /** The header value that makes a browser save an answer under a name. */
    public static String attachment(String name) {
        return ContentDisposition.attachment().filename(name).build().toString();
    }
}
