package polymetron.server.hardware;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import polymetron.Shipped;
import polymetron.output.HandoffFile;
import polymetron.output.hardware.Hardware;
import polymetron.server.OneServer;
import polymetron.server.RunningServer;
import tools.jackson.databind.JsonNode;

@ExtendWith(OneServer.class)
final class HardwareApiTest {
    private final RunningServer server;

    HardwareApiTest(RunningServer server) {
        this.server = server;
    }

    private String platform(String demo) {
        return "/api/platforms/"
                + server.upload(
                                "/api/platforms/import?name=demo",
                                Shipped.file("demo/" + demo + ".json"))
                        .json()
                        .path("id")
                        .asString();
    }

    @Test
    void filesAreTheCoresBytesAndTheTreeLeadsToThem() {
        String platform = platform("ridge-station");
        JsonNode shown = server.get(platform + "/hardware").json();
        Hardware hardware = Hardware.of(Shipped.elaborate(Shipped.demo()));
        assertThat(shown.path("top").asString()).isEqualTo(hardware.top());
        assertThat(shown.path("notBuilt")).isEmpty();
        assertThat(shown.path("files").findValuesAsString("path"))
                .isEqualTo(hardware.files().stream().map(HandoffFile::path).toList());
        assertThat(shown.path("files").findValuesAsString("path"))
                .containsAll(shown.path("instances").findValuesAsString("path"));
        assertThat(shown.path("instances").findValuesAsString("name"))
                .contains("ridge_station", "cpu", "lamps", "system");
        for (HandoffFile file : hardware.files()) {
            assertThat(server.get(platform + "/hardware/file?path=" + file.path()).bytes())
                    .as(file.path())
                    .isEqualTo(file.bytes());
        }
        assertThat(server.get(platform + "/hardware/file?path=../../etc/passwd").status())
                .isEqualTo(404);
    }

    @Test
    void whatIsMissingIsNamed() {
        JsonNode shown = server.get(platform("highland-station") + "/hardware").json();
        assertThat(shown.path("files")).isEmpty();
        assertThat(shown.path("notBuilt").toString())
                .contains("cpu", "there is no hardware for Fast RISC-V");
    }
}
