package polymetron.server.platform;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import polymetron.platform.LargeDocument;
import polymetron.server.OneServer;
import polymetron.server.RunningServer;
import polymetron.server.RunningServer.Answer;
import tools.jackson.databind.JsonNode;

/** Ten thousand blocks: slow is allowed, failing is not. */
@ExtendWith(OneServer.class)
final class ManyBlocksTest {
    private static final int MANY = 10_000;

    private final RunningServer server;

    ManyBlocksTest(RunningServer server) {
        this.server = server;
    }

    @Test
    void everythingWorksOnThem() {
        byte[] document = LargeDocument.of(MANY).getBytes(StandardCharsets.UTF_8);
        String id =
                server.upload("/api/platforms/import?name=many.json", document)
                        .json()
                        .path("id")
                        .asString();
        String path = "/api/platforms/" + id;
        assertThat(server.get(path + "/document").bytes()).isEqualTo(document);
        assertThat(server.get(path).json().path("blocks")).hasSize(MANY);

        Answer edited =
                server.post(
                        path + "/edits",
                        """
                        {"revision": 1, "edit": {"edit": "remove-block", "block": "port5001"}}
                        """);
        assertThat(edited.status()).as(edited.text()).isEqualTo(200);
        JsonNode plan =
                server.post(path + "/plan", "{\"add\": {\"type\": \"polymetron:io:gpio:1.0\"}}")
                        .json();
        assertThat(plan.path("lines").toString())
                .contains("gpio.registers on system at 0x1000_1000");
        assertThat(server.get(path + "/addresses").status()).isEqualTo(200);
        assertThat(server.get(path + "/handoff").text()).contains("PORT9999_BASE");
    }
}
