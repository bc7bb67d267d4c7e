package polymetron.server.bench;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.BufferedReader;
import java.io.InputStream;
import java.io.InputStreamReader;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import polymetron.Shipped;
import polymetron.server.OneServer;
import polymetron.server.RunningServer;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

@ExtendWith(OneServer.class)
final class BenchApiTest {
    private final RunningServer server;
    private final String platform;

    BenchApiTest(RunningServer server) {
        this.server = server;
        this.platform = "/api/platforms/" + server.create("Benched", "station");
    }

    private void load() {
        String program =
                server.upload(platform + "/programs?name=demo.elf", Shipped.demoProgram())
                        .json()
                        .path("id")
                        .asString();
        assertThat(server.post(platform + "/bench", Map.of("program", program)).status())
                .isEqualTo(200);
    }

    @Test
    void theConsoleTalksBothWays() throws Exception {
        load();
        HttpResponse<InputStream> frames =
                server.client()
                        .send(
                                server.request(platform + "/bench/frames").build(),
                                HttpResponse.BodyHandlers.ofInputStream());
        StringBuilder console = new StringBuilder();
        try (BufferedReader lines =
                new BufferedReader(new InputStreamReader(frames.body(), StandardCharsets.UTF_8))) {
            server.post(platform + "/bench/run", "{}");
            readUntil(lines, console, "say help");
            assertThat(
                            server.post(
                                            platform + "/bench/parts/switches",
                                            Map.of("line", 1, "high", true))
                                    .status())
                    .isEqualTo(204);
            server.post(platform + "/bench/console", Map.of("text", "status\r"));
            readUntil(lines, console, "gain 3");
        }
        server.post(platform + "/bench/pause", "{}");
        JsonNode registers = server.get(platform + "/bench/registers?block=gain").json();
        assertThat(registers.toString()).contains("0x00000002");
    }

    private static void readUntil(BufferedReader lines, StringBuilder console, String text)
            throws java.io.IOException {
        while (console.indexOf(text) < 0) {
            String line = lines.readLine();
            if (line.startsWith("data:")) {
                console.append(
                        new JsonMapper().readTree(line.substring(5)).path("console").asString());
            }
        }
    }

    @Test
    void saysWhatIsMissing() {
        assertThat(server.post(platform + "/bench/run", "{}").json().path("detail").asString())
                .contains("load a program");
        load();
        assertThat(
                        server.post(
                                        platform + "/bench/registers",
                                        "{\"block\": \"lamps\", \"register\": \"OUTPUT\","
                                                + " \"index\": 0, \"value\": \"0x1_0000_0000\"}")
                                .json()
                                .path("detail")
                                .asString())
                .contains("32 bits");
        assertThat(
                        server.post(platform + "/bench/console", Map.of("text", "x".repeat(5000)))
                                .status())
                .isEqualTo(422);
    }

    @Test
    void anEditAfterLoadingIsNoticed() {
        load();
        assertThat(server.get(platform + "/bench").json().path("stale").asBoolean()).isFalse();
        server.post(
                platform + "/edits",
                "{\"revision\": 1, \"edit\": {\"edit\": \"rename-block\", \"block\": \"lamps\","
                        + " \"name\": \"bar\"}}");
        assertThat(server.get(platform + "/bench").json().path("stale").asBoolean()).isTrue();
        assertThat(server.get(platform + "/bench").json().path("mismatch").isMissingNode())
                .isTrue();
        load();
        assertThat(server.get(platform + "/bench").json().path("stale").asBoolean()).isFalse();
        assertThat(server.get(platform + "/bench").json().path("mismatch").asString())
                .contains("was linked for a platform with fingerprint");
    }
}
