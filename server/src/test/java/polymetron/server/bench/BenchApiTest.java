package polymetron.server.bench;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.BufferedReader;
import java.io.InputStream;
import java.io.InputStreamReader;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.util.List;
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
                                server.request(
                                                "/api/events?bench="
                                                        + platform.replaceFirst(".*/", ""))
                                        .build(),
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

    /** The large station has a battery, a converter, a receiver and streams. */
    @Test
    void whatIsOutsideCanBeMovedAndStreamsLookedAt() {
        String id =
                server.upload(
                                "/api/platforms/import?name=station.json",
                                Shipped.file("demo/highland-station.json"))
                        .json()
                        .path("id")
                        .asString();
        String station = "/api/platforms/" + id;
        String program =
                server.upload(
                                station + "/programs?name=station.elf",
                                Shipped.file("demo/highland-station.elf"))
                        .json()
                        .path("id")
                        .asString();
        JsonNode bench = server.post(station + "/bench", Map.of("program", program)).json();
        assertThat(bench.path("streams").toString()).contains("ground_decimate.out", "24");
        assertThat(bench.path("beside")).isEmpty();
        JsonNode state = bench.path("state");
        assertThat(state.path("notices").isArray()).as("memory is not checked").isFalse();
        assertThat(
                        server.post(station + "/bench", Map.of("program", program, "checked", true))
                                .json()
                                .path("state")
                                .path("notices")
                                .isArray())
                .isTrue();
        server.post(station + "/bench", Map.of("program", program));
        assertThat(state.path("voltages").get(0).path("fullScale").asDouble()).isEqualTo(16.5);
        assertThat(state.path("signals").get(0).path("shape").asString()).isEqualTo("quiet");
        String parts = station + "/bench/parts/";
        assertThat(status(parts + "battery/voltage", Map.of("channel", 0, "volts", 11.0)))
                .isEqualTo(204);
        assertThat(status(parts + "converter/signal", Map.of("shape", "sine"))).isEqualTo(204);
        assertThat(status(parts + "receiver/reception", Map.of("on", false))).isEqualTo(204);
        String words = station + "/bench/streams/ground_decimate/out?since=0";
        assertThat(server.get(words).json().path("end").asLong()).isZero();
        server.post(station + "/bench/run", "{}");
        long end = 0;
        for (int wait = 0; wait < 200 && end < 30; wait++) {
            end = server.get(words).json().path("end").asLong();
        }
        server.post(station + "/bench/pause", "{}");
        JsonNode streamed = server.get(words).json();
        assertThat(streamed.path("values")).hasSize(streamed.path("end").asInt());
        assertThat(streamed.path("ends").get(2).asBoolean()).isTrue();
        JsonNode now = server.get(station + "/bench").json().path("state");
        assertThat(now.path("voltages").get(0).path("volts").asDouble()).isBetween(10.99, 11.01);
        assertThat(now.path("receptions").get(0).path("on").asBoolean()).isFalse();

        // A reset leaves what is outside as it is.
        server.post(station + "/bench/reset", "{}");
        JsonNode reset = server.get(station + "/bench").json().path("state");
        assertThat(reset.path("receptions").get(0).path("on").asBoolean()).isFalse();
        assertThat(reset.path("voltages").get(0).path("volts").asDouble()).isBetween(10.99, 11.01);
        assertThat(server.get(words.replace("since=0", "since=-5")).json().path("values"))
                .hasSize(streamed.path("values").size());
        assertThat(detail(parts + "battery", Map.of("line", 0, "high", true)))
                .isEqualTo("battery has no lines that are moved by hand: it is on battery");
        assertThat(
                        detail(
                                station + "/bench",
                                Map.of(
                                        "program",
                                        program,
                                        "beside",
                                        List.of(Map.of("program", program, "processor", "cpu")))))
                .isEqualTo("each processor runs one program, and cpu has two");

        // While the battery runs down by itself its voltage cannot be set.
        String around = station + "/bench/surroundings/";
        assertThat(status(around + "battery", Map.of("on", true))).isEqualTo(204);
        JsonNode acting = server.get(station + "/bench").json().path("state").path("around").get(0);
        assertThat(acting.path("acts").asBoolean()).isTrue();
        assertThat(acting.path("readings").get(0).path("value").asDouble()).isBetween(30.0, 35.0);
        assertThat(detail(parts + "battery/voltage", Map.of("channel", 0, "volts", 12)))
                .isEqualTo("battery follows the discharging battery; stop that to move it by hand");
        assertThat(detail(around + "weather", Map.of("on", true)))
                .isEqualTo("there is no weather around this platform");
        assertThat(status(around + "battery", Map.of("on", false))).isEqualTo(204);
        assertThat(detail(parts + "battery/voltage", Map.of("channel", 0, "volts", 17)))
                .isEqualTo("battery measures 0 to 16.5 V, not 17.0 V");
        assertThat(detail(parts + "battery/voltage", Map.of("channel", 1, "volts", 1)))
                .contains("channels 0 to 0, not 1");
        assertThat(detail(parts + "lamps/voltage", Map.of("channel", 0, "volts", 1)))
                .contains("no block measures at lamps");
        assertThat(detail(parts + "converter/signal", Map.of("shape", "square")))
                .contains("recording, quiet, ground motion, sine, sum of sines, noise, constant");
        assertThat(detail(parts + "lamps/reception", Map.of("on", true)))
                .contains("no block is on a receiver called lamps");
        assertThat(
                        server.get(station + "/bench/streams/ground_decimate/in")
                                .json()
                                .path("detail")
                                .asString())
                .contains("there is no stream source ground_decimate.in");
    }

    private int status(String path, Map<String, Object> body) {
        return server.post(path, body).status();
    }

    private String detail(String path, Map<String, Object> body) {
        return server.post(path, body).json().path("detail").asString();
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
