package polymetron.server.platform;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.http.HttpRequest;
import java.nio.charset.StandardCharsets;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import polymetron.server.OneServer;
import polymetron.server.RunningServer;
import polymetron.server.RunningServer.Answer;
import tools.jackson.databind.JsonNode;

/** Clocks, interrupts, pins and fit over the API, and what bad questions get. */
@ExtendWith(OneServer.class)
final class CalculationsApiTest {
    private final RunningServer server;

    CalculationsApiTest(RunningServer server) {
        this.server = server;
    }

    private Answer wish(String id, String name, String hertz) {
        return server.post(
                "/api/platforms/" + id + "/clocks/plan",
                """
                {"source": "main", "wishes": [{"name": "%s", "hertz": %s, "tolerancePpm": 10}]}
                """
                        .formatted(name, hertz));
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "audio|0|at least 1 Hz and at most 10 GHz",
                "audio|-5|at least 1 Hz and at most 10 GHz",
                "audio|10000000000000|at least 1 Hz and at most 10 GHz",
                "main|1000000|there is a clock domain main already",
                "Audio 1|1000000|a name begins with a lower-case letter"
            })
    void absurdClocksAreRefused(String name, String hertz, String says) {
        Answer answer = wish(server.create("Absurd", "station"), name, hertz);
        assertThat(answer.status()).isEqualTo(422);
        assertThat(answer.json().path("detail").asString()).contains(says);
    }

    @Test
    void settingsFoundAreAnEditThatIsAccepted() {
        String id = server.create("Planned", "station");
        JsonNode plan = wish(id, "slow", "25000000").json();
        JsonNode best = plan.path("candidates").get(0);
        assertThat(best.path("worst").asString()).isEqualTo("exact");
        String edit = "{\"revision\": 1, \"edit\": %s}".formatted(best.path("edit"));
        assertThat(server.post("/api/platforms/" + id + "/edits", edit).status()).isEqualTo(200);
        String clocks = server.get("/api/platforms/" + id + "/clocks").text();
        assertThat(clocks).contains("\"wanted\":\"25 MHz\"").contains("\"error\":\"exact\"");
        // The device has one PLL only.
        assertThat(wish(id, "fast", "100000000").text()).contains("no PLL that is free");
        assertThat(server.get("/api/platforms/" + id + "/clocks?at=1").text())
                .doesNotContain("slow");
        assertThat(server.get("/api/platforms/" + id + "/clocks?at=99").status()).isEqualTo(404);
    }

    @Test
    void tablesOfPinsAreReadAndRefusedLineByLine() {
        String id = server.create("Tables", "station");
        String path = "/api/platforms/" + id + "/pins/import";
        assertThat(table(path, "").text()).contains("this request needs a body, it is empty");
        assertThat(table(path, "pins of my board").text())
                .contains("line 1: the first line names the columns");
        String unknown = "port,pin\nmissing[0],A1\nlamps.value[0],Q9\n";
        assertThat(table(path, unknown).text())
                .contains("line 2: there is no port missing[0]")
                .contains("line 3: FL9-40 has no pin Q9");
        JsonNode same = table(path, "port,pin\nlamps.value[0],H1\n").json();
        assertThat(same.path("problems")).isEmpty();
        assertThat(same.path("edit").isMissingNode() || same.path("edit").isNull()).isTrue();
    }

    private Answer table(String path, String text) {
        return server.send(
                server.request(path)
                        .header("Content-Type", "text/plain")
                        .POST(
                                HttpRequest.BodyPublishers.ofByteArray(
                                        text.getBytes(StandardCharsets.UTF_8)))
                        .build());
    }

    @Test
    void interruptsAndFitAreTold() {
        String id = server.create("Told", "station");
        JsonNode ports = server.get("/api/platforms/" + id + "/interrupts").json().path("ports");
        assertThat(ports.get(0).path("inputs").get(0).path("hardware").asInt()).isZero();
        assertThat(ports.get(0).path("inputs").get(0).path("software").asInt()).isEqualTo(1);
        JsonNode fit = server.get("/api/platforms/" + id + "/fit").json();
        assertThat(fit.path("memory").path("blocksUsed").asInt()).isEqualTo(16);
        assertThat(fit.path("memory").path("tiles")).hasSize(16);
        assertThat(server.get("/api/platforms/" + id + "/addresses").json().path("decode"))
                .hasSize(7);
    }
}
