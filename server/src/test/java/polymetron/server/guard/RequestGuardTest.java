package polymetron.server.guard;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.net.Socket;
import java.net.http.HttpRequest;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import polymetron.server.OneServer;
import polymetron.server.RunningServer;

@ExtendWith(OneServer.class)
final class RequestGuardTest {
    private static final byte[] MEBIBYTE = new byte[1024 * 1024];

    private final RunningServer server;

    RequestGuardTest(RunningServer server) {
        this.server = server;
    }

    /** Sends a head as it stands, because a well-behaved client would not. */
    private String raw(String head) throws IOException {
        try (Socket socket = new Socket("127.0.0.1", server.port())) {
            socket.setSoTimeout(10_000);
            socket.getOutputStream()
                    .write(head.replace("\n", "\r\n").getBytes(StandardCharsets.US_ASCII));
            socket.getOutputStream().flush();
            // The head and what came with it; a server that waits for a body keeps the line open.
            byte[] buffer = new byte[4000];
            int length = Math.max(socket.getInputStream().read(buffer), 0);
            while (length < 200 || socket.getInputStream().available() > 0) {
                int read = socket.getInputStream().read(buffer, length, buffer.length - length);
                if (read <= 0) {
                    break;
                }
                length += read;
            }
            return new String(buffer, 0, length, StandardCharsets.UTF_8);
        }
    }

    @ParameterizedTest
    @ValueSource(
            strings = {"attacker.example", "127.0.0.1.attacker.example", "192.168.1.7:8440", ""})
    void otherHostsAreRefused(String host) throws IOException {
        String answer =
                raw("GET /api/platforms HTTP/1.1\nHost: %s\nConnection: close\n\n".formatted(host));
        assertThat(answer).startsWith("HTTP/1.1 421").contains("http://127.0.0.1:");
    }

    @ParameterizedTest
    @CsvSource({
        "Origin, http://attacker.example",
        "Origin, null",
        "Origin, http://127.0.0.1:1",
        "Origin, https://127.0.0.1:not a port",
        "Origin, https://127.0.0.1:PORT",
        "Sec-Fetch-Site, cross-site"
    })
    void changesFromOtherPagesAreRefused(String header, String value) throws IOException {
        int before = server.get("/api/platforms").json().size();
        String body = "{\"name\": \"x\", \"board\": \"polymetron:boards:foreland:1.0\"}";
        String answer =
                raw(
                        """
                        POST /api/platforms HTTP/1.1
                        Host: 127.0.0.1:%d
                        %s: %s
                        Content-Type: application/json
                        Content-Length: %d
                        Connection: close

                        %s\
                        """
                                .formatted(
                                        server.port(),
                                        header,
                                        value.replace("PORT", String.valueOf(server.port())),
                                        body.length(),
                                        body));
        assertThat(answer).startsWith("HTTP/1.1 403").contains("own pages");
        assertThat(server.get("/api/platforms").json().size()).isEqualTo(before);
    }

    @Test
    void everyAnswerCarriesAStrictPolicy() {
        for (String path : new String[] {"/", "/api/platforms", "/p/x/compose", "/nothing"}) {
            String policy =
                    server.get(path)
                            .response()
                            .headers()
                            .firstValue("Content-Security-Policy")
                            .orElse("");
            assertThat(policy).contains("default-src 'self'").contains("frame-ancestors 'none'");
            assertThat(policy).doesNotContain("unsafe-eval").doesNotContain("script-src");
        }
    }

    /** What the web server itself would refuse without a word, or on a page of its own. */
    @ParameterizedTest
    @ValueSource(
            strings = {
                "TRACE /api/platforms",
                "CONNECT /api/platforms",
                "BREW /api/platforms",
                "GET /WEB-INF/web.xml",
                "GET /META-INF/MANIFEST.MF",
                "GET /error",
                "GET /nothing/here",
                "GET /api/nothing",
                "GET /api/platforms/%",
                "GET /%2e%2e/%2e%2e/etc/passwd",
                "GET /api/platforms;x=1/..;/error",
                "GET /api\\platforms",
                "DELETE /api/platforms",
                "POST /"
            })
    void refusalsAreExplainedAndCarryThePolicy(String line) throws IOException {
        String answer =
                raw(
                        "%s HTTP/1.1\nHost: 127.0.0.1:%d\nConnection: close\n\n"
                                .formatted(line, server.port()));
        assertThat(answer)
                .matches("(?s)HTTP/1.1 (4\\d\\d|501).*")
                .containsIgnoringCase("Content-Type: application/problem+json")
                .contains("\"detail\":\"")
                .contains("Content-Security-Policy: default-src 'self'")
                .contains("X-Content-Type-Options: nosniff");
    }

    @Test
    void aTwoGigabyteUploadIsRefusedBeforeItIsSent() throws IOException {
        String answer =
                raw(
                        """
                        POST /api/platforms/00000000-0000-0000-0000-000000000000/programs?name=x HTTP/1.1
                        Host: 127.0.0.1:%d
                        Content-Type: application/octet-stream
                        Content-Length: 2147483648
                        Connection: close

                        """
                                .formatted(server.port()));
        assertThat(answer).startsWith("HTTP/1.1 413").contains("Too large");
    }

    /** A body in chunks claims no length; it is cut off when it has grown too long. */
    @Test
    void anEndlessUploadIsCutOff() throws IOException {
        String id = server.create("Endless", null);
        String answer = "";
        long sent = 0;
        try (Socket socket = new Socket("127.0.0.1", server.port())) {
            socket.setSoTimeout(10_000);
            OutputStream out = socket.getOutputStream();
            out.write(
                    """
                    POST /api/platforms/%s/programs?name=endless.elf HTTP/1.1
                    Host: 127.0.0.1:%d
                    Content-Type: application/octet-stream
                    Transfer-Encoding: chunked

                    """
                            .replace("\n", "\r\n")
                            .formatted(id, server.port())
                            .getBytes(StandardCharsets.US_ASCII));
            byte[] chunk = Arrays.copyOf(MEBIBYTE, MEBIBYTE.length);
            InputStream in = socket.getInputStream();
            try {
                while (sent < 2048L && in.available() == 0) {
                    out.write("100000\r\n".getBytes(StandardCharsets.US_ASCII));
                    out.write(chunk);
                    out.write("\r\n".getBytes(StandardCharsets.US_ASCII));
                    sent++;
                }
            } catch (IOException cut) {
                // The server need not read on.
            }
            answer = new String(in.readNBytes(600), StandardCharsets.UTF_8);
        } catch (IOException reset) {
            answer = "connection reset";
        }
        assertThat(sent).as("MiB that were taken").isLessThan(200);
        assertThat(answer).containsAnyOf("413", "connection reset");
        assertThat(server.get("/api/platforms/" + id + "/programs").json().size()).isZero();
    }

    @Test
    void aLongEditIsRefused() {
        RunningServer.Answer answer =
                server.send(
                        server.request("/api/platforms")
                                .header("Content-Type", "application/json")
                                .POST(
                                        HttpRequest.BodyPublishers.ofInputStream(
                                                () ->
                                                        new java.io.ByteArrayInputStream(
                                                                new byte[3 * 1024 * 1024])))
                                .build());
        assertThat(answer.status()).isIn(400, 413);
    }
}
