package polymetron.server.platform;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import polymetron.server.OneServer;
import polymetron.server.RunningServer;
import polymetron.server.RunningServer.Answer;
import tools.jackson.databind.JsonNode;

/** Ranges over the API: offers that are edits, and what bad questions get. */
@ExtendWith(OneServer.class)
final class RangeApiTest {
    private final RunningServer server;

    RangeApiTest(RunningServer server) {
        this.server = server;
    }

    private Answer ranges(String id, String body) {
        return server.post("/api/platforms/" + id + "/ranges", body);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "{'change': 'swap', 'targets': ['lamps.registers']}|choose two ranges to swap",
                "{'change': 'swap', 'targets': ['lamps.registers', 'missing.registers']}|no target"
                        + " missing.registers",
                "{'change': 'up', 'targets': ['lamps.registers'], 'amount':"
                        + " '0xFFFFFFFFFFFFFFFF'}|would pass",
                "{'change': 'up', 'targets': ['lamps.registers'], 'amount': '-5'}|is not an"
                        + " address",
                "{'change': 'up', 'targets': ['lamps.registers'], 'amount':"
                        + " '0x1FFFFFFFFFFFFFFFF'}|needs 65 bits",
                "{'change': 'down', 'targets': [], 'amount': '4K'}|choose a range",
                "{'change': 'turn', 'targets': ['lamps.registers'], 'amount': '1'}|end, snap, swap,"
                        + " up or down",
                "{'change': 'end', 'targets': ['lamps'], 'amount': '1'}|write block.name",
                "{'change': 'snap', 'targets': ['lamps.registers']}|give an address"
            })
    void badQuestionsGetClearAnswers(String body, String says) {
        String id = server.create("Asked", "station");
        Answer answer = ranges(id, body.replace('\'', '"'));
        assertThat(answer.status()).as(answer.text()).isEqualTo(422);
        assertThat(answer.json().path("detail").asString()).contains(says);
        assertThat(server.get("/api/platforms/" + id).json().path("revision").asInt()).isEqualTo(1);
    }

    @Test
    void anOfferIsAnEditThatIsAccepted() {
        String id = server.create("Offered", "station");
        JsonNode offer =
                ranges(
                                id,
                                "{\"change\": \"snap\", \"targets\": [\"lamps.registers\"],"
                                        + " \"amount\": \"0x1000_0123\"}")
                        .json();
        String edit = "{\"revision\": 1, \"edit\": %s}".formatted(offer.path("edit"));
        assertThat(server.post("/api/platforms/" + id + "/edits", edit).status()).isEqualTo(200);
        JsonNode seen = server.get("/api/platforms/" + id + "/space?initiator=cpu.data").json();
        assertThat(seen.path("seen").toString()).contains("\"label\":\"lamps\"");
        assertThat(server.get("/api/platforms/" + id + "/space?initiator=cpu.left").status())
                .isEqualTo(404);
        assertThat(server.get("/api/platforms/" + id + "/where?name=console.T").text())
                .contains("console.THR")
                .contains("0x1000_");
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "'bus': 'system', 'name': 'x', 'base': '0x2000', 'last': '0x1000'|lies before the"
                        + " first",
                "'bus': 'system', 'name': 'x', 'base': '0', 'last': '0x1_0000_0000'|lies beyond it",
                "'bus': 'nowhere', 'name': 'x', 'base': '0', 'last': '1'|there is no bus nowhere",
                "'bus': 'system', 'name': ' ', 'base': '0', 'last': '1'|what the addresses are kept"
                        + " for",
                "'bus': 'system', 'name': 'x', 'base': '0'|first and the last address"
            })
    void absurdReservationsAreRefused(String edit, String says) {
        String id = server.create("Reserved", "station");
        Answer answer =
                server.post(
                        "/api/platforms/" + id + "/edits",
                        "{\"revision\": 1, \"edit\": {\"edit\": \"reserve\", %s}}"
                                .formatted(edit.replace('\'', '"')));
        assertThat(answer.status()).as(answer.text()).isEqualTo(422);
        assertThat(answer.json().path("detail").asString()).contains(says);
    }

    /** Two bridges to one bus, one of them back again, with windows smaller than what is behind: nothing hangs. */
    @Test
    void bridgesInALoopAndShortWindowsGiveFindings() {
        String id = server.create("Looped", "station");
        String edits =
                """
                {"revision": 1, "edit": {"edit": "several", "title": "loop", "edits": [
                  {"edit": "add-bus", "bus": {"name": "far", "protocol": "axi4-lite", "dataWidth": 32,
                    "addressWidth": 20, "domain": "main"}},
                  {"edit": "add-block", "name": "there", "type": "polymetron:infrastructure:bridge:1.0",
                    "parameters": {"WINDOW": "4096"}},
                  {"edit": "add-block", "name": "too", "type": "polymetron:infrastructure:bridge:1.0"},
                  {"edit": "add-block", "name": "back", "type": "polymetron:infrastructure:bridge:1.0"},
                  {"edit": "attach", "block": "there", "busInterface": "window", "bus": "system",
                    "base": "0x4000_0000"},
                  {"edit": "attach", "block": "there", "busInterface": "behind", "bus": "far"},
                  {"edit": "attach", "block": "too", "busInterface": "window", "bus": "system",
                    "base": "0x5000_0000"},
                  {"edit": "attach", "block": "too", "busInterface": "behind", "bus": "far"},
                  {"edit": "attach", "block": "back", "busInterface": "window", "bus": "far",
                    "base": "0x0"},
                  {"edit": "attach", "block": "back", "busInterface": "behind", "bus": "system"},
                  {"edit": "add-block", "name": "more", "type": "polymetron:io:gpio:1.0"},
                  {"edit": "attach", "block": "more", "busInterface": "registers", "bus": "far",
                    "base": "0x8000"}
                ]}}
                """;
        Answer answer = server.post("/api/platforms/" + id + "/edits", edits);
        assertThat(answer.status()).as(answer.text()).isEqualTo(200);
        String path = "/api/platforms/" + id;
        assertThat(server.get(path).json().path("findings").toString())
                .contains("bridge-loop")
                .contains("bridge");
        for (String view : new String[] {"/addresses", "/placement", "/space?initiator=cpu.data"}) {
            assertThat(server.get(path + view).status()).as(view).isEqualTo(200);
        }
        assertThat(
                        server.get(path + "/settle?group=range-overlap")
                                .json()
                                .path("problem")
                                .asString())
                .contains("none of them has a fix");
    }
}
