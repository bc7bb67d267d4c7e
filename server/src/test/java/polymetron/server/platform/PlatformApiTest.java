package polymetron.server.platform;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import polymetron.Shipped;
import polymetron.server.OneServer;
import polymetron.server.RunningServer;
import polymetron.server.RunningServer.Answer;
import tools.jackson.databind.JsonNode;

@ExtendWith(OneServer.class)
final class PlatformApiTest {
    private final RunningServer server;

    PlatformApiTest(RunningServer server) {
        this.server = server;
    }

    private Answer edit(String id, long revision, String edit) {
        return server.post(
                "/api/platforms/" + id + "/edits",
                "{\"revision\": %d, \"edit\": %s}".formatted(revision, edit));
    }

    private JsonNode read(String id) {
        return server.get("/api/platforms/" + id).json();
    }

    @Test
    void theDemoIsThereAndHasNoFindings() {
        JsonNode demo =
                server.get("/api/platforms")
                        .json()
                        .valueStream()
                        .filter(each -> each.path("name").asString().equals("Ridge Station"))
                        .findFirst()
                        .orElseThrow();
        assertThat(demo.path("errors").asInt()).isZero();
        assertThat(demo.path("blocks").asInt()).isEqualTo(8);
    }

    /** A look at what an edit would break comes after the edit itself: it is meant for the revision before. */
    @Test
    void consequencesAreThoseForTheRevisionThatTheEditIsMeantFor() {
        String id = server.create("Looked at late", "station");
        String look = "/api/platforms/" + id + "/consequences";
        String remove = "{\"edit\": \"remove-block\", \"block\": \"console\"}";
        JsonNode first =
                server.post(look, "{\"edit\": %s, \"revision\": 1}".formatted(remove)).json();
        assertThat(edit(id, 1, remove).status()).isEqualTo(200);
        assertThat(server.post(look, "{\"edit\": %s, \"revision\": 1}".formatted(remove)).json())
                .isEqualTo(first);
        assertThat(server.post(look, "{\"edit\": %s}".formatted(remove)).status()).isEqualTo(422);
        assertThat(server.post(look, "{\"edit\": %s, \"revision\": 99}".formatted(remove)).status())
                .isEqualTo(404);
    }

    /** The first half of the walk: blocks one by one, each as the wiring plan proposes, end without a finding. */
    @Test
    void anEmptyPlatformIsBuiltBlockByBlock() {
        String id = server.create("Block by block", null);
        String[][] blocks = {
            {"polymetron:processor:rv32-small:1.0", null},
            {"polymetron:memory:block-memory:1.0", null},
            {"polymetron:serial:uart:1.0", "console"},
            {"polymetron:io:gpio:1.0", "lamps"},
            {"polymetron:io:gpio:1.0", "switches"},
            {"polymetron:timer:machine-timer:1.0", null},
            {"polymetron:interrupt:interrupt-controller:1.0", null}
        };
        for (String[] block : blocks) {
            String part = block[1] == null ? "" : ", \"part\": \"%s\"".formatted(block[1]);
            JsonNode plan =
                    server.post(
                                    "/api/platforms/" + id + "/plan",
                                    "{\"add\": {\"type\": \"%s\"%s}}".formatted(block[0], part))
                            .json();
            assertThat(plan.path("lines").valueStream())
                    .allSatisfy(line -> assertThat(line.path("why").asString()).isNotBlank());
            assertThat(
                            edit(id, plan.path("revision").asLong(), plan.path("edit").toString())
                                    .status())
                    .isEqualTo(200);
        }
        JsonNode whole = read(id);
        assertThat(whole.path("revision").asLong()).isEqualTo(8);
        assertThat(whole.path("findings").valueStream().map(each -> each.path("what").asString()))
                .isEmpty();
        JsonNode again = server.post("/api/platforms/" + id + "/plan", "{}").json();
        assertThat(again.path("lines").valueStream()).isEmpty();
    }

    @Test
    void aStaleEditIsRefusedWithWhatChangedMeanwhile() {
        String id = server.create("Two users", "station");
        assertThat(
                        edit(
                                        id,
                                        1,
                                        "{\"edit\": \"rename-block\", \"block\": \"lamps\","
                                                + " \"name\": \"bar\"}")
                                .status())
                .isEqualTo(200);
        Answer late = edit(id, 1, "{\"edit\": \"remove-block\", \"block\": \"lamps\"}");
        assertThat(late.status()).isEqualTo(409);
        assertThat(late.response().headers().firstValue("Content-Type").orElseThrow())
                .isEqualTo("application/problem+json");
        assertThat(late.json().path("revision").asLong()).isEqualTo(2);
        assertThat(late.json().path("meanwhile").valueStream().map(JsonNode::asString))
                .containsExactly("rename lamps to bar");
        assertThat(server.post("/api/platforms/" + id + "/undo", Map.of("revision", 1)).status())
                .isEqualTo(409);
    }

    /** A list with a hole in it is refused wherever one is taken, before anybody looks into it. */
    @Test
    void holesInListsAreRefused() {
        String id = server.create("No holes", "station");
        String path = "/api/platforms/" + id;
        assertThat(
                        server.post(
                                        path + "/clocks/plan",
                                        "{\"source\": \"main\", \"wishes\": [null]}")
                                .status())
                .isEqualTo(400);
        Answer several =
                edit(id, 1, "{\"edit\": \"several\", \"title\": \"x\", \"edits\": [null]}");
        assertThat(several.status()).isIn(400, 422);
        assertThat(several.json().path("detail").asString()).isNotBlank();
        assertThat(read(id).path("revision").asLong()).isEqualTo(1);
    }

    @Test
    void theSameValueAgainIsNoRevision() {
        String id = server.create("Written twice", "station");
        String baud =
                "{\"edit\": \"set-parameter\", \"block\": \"console\", \"parameter\": \"BAUD\","
                        + " \"value\": \"9600\"}";
        assertThat(edit(id, 1, baud).json().path("revision").asLong()).isEqualTo(2);
        assertThat(edit(id, 2, baud).json().path("revision").asLong()).isEqualTo(2);
        go(id, "undo", 2);
        assertThat(read(id).path("revision").asLong()).isEqualTo(3);
    }

    @Test
    void undoAndRedoWalkThroughTheSameContents() {
        String id = server.create("There and back", "station");
        String[] documents = new String[4];
        documents[1] = document(id);
        edit(id, 1, "{\"edit\": \"rename-block\", \"block\": \"lamps\", \"name\": \"bar\"}");
        documents[2] = document(id);
        edit(
                id,
                2,
                "{\"edit\": \"set-parameter\", \"block\": \"console\", \"parameter\": \"BAUD\","
                        + " \"value\": \"9600\"}");
        documents[3] = document(id);
        assertThat(read(id).path("undo").asString()).isEqualTo("set BAUD of console to 9600");
        assertThat(go(id, "undo", 3)).isEqualTo(documents[2]);
        assertThat(go(id, "undo", 4)).isEqualTo(documents[1]);
        assertThat(read(id).has("undo")).isFalse();
        assertThat(server.post("/api/platforms/" + id + "/undo", Map.of("revision", 5)).status())
                .isEqualTo(422);
        assertThat(go(id, "redo", 5)).isEqualTo(documents[2]);
        assertThat(go(id, "redo", 6)).isEqualTo(documents[3]);
        assertThat(go(id, "undo", 7)).isEqualTo(documents[2]);
        edit(id, 8, "{\"edit\": \"rename-platform\", \"name\": \"Elsewhere\"}");
        assertThat(read(id).has("redo")).as("a new edit ends redo").isFalse();
        assertThat(go(id, "undo", 9)).isEqualTo(documents[2]);
    }

    private String document(String id) {
        return server.get("/api/platforms/" + id + "/document").text();
    }

    private String go(String id, String word, long revision) {
        assertThat(
                        server.post(
                                        "/api/platforms/" + id + "/" + word,
                                        Map.of("revision", revision))
                                .status())
                .isEqualTo(200);
        return document(id);
    }

    @Test
    void exportAndImportGiveTheSameBytes() {
        byte[] demo = Shipped.file("demo/ridge-station.json");
        Answer imported = server.upload("/api/platforms/import?name=ridge-station.json", demo);
        assertThat(imported.status()).isEqualTo(201);
        String id = imported.json().path("id").asString();
        assertThat(server.get("/api/platforms/" + id + "/document").bytes()).isEqualTo(demo);
        String copy =
                server.post("/api/platforms/" + id + "/copy", "{}").json().path("id").asString();
        assertThat(read(copy).path("name").asString()).isEqualTo("Copy of Ridge Station");
        assertThat(read(copy).path("fingerprint").asString())
                .as("the name is part of what software sees")
                .isNotBlank();
        assertThat(server.send(server.request("/api/platforms/" + copy).DELETE().build()).status())
                .isEqualTo(204);
        assertThat(server.get("/api/platforms/" + copy).status()).isEqualTo(404);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            textBlock =
                    """
                    {"edit": "set-parameter", "block": "missing", "parameter": "BAUD", "value": "1"}      | missing
                    {"edit": "attach", "block": "lamps", "busInterface": "registers", "bus": "system", "base": "0x1_0000_0000_0000_0000"} | 64
                    {"edit": "attach", "block": "lamps", "busInterface": "registers", "bus": "system", "base": "high"} | high
                    {"edit": "rename-block", "block": "lamps", "name": "two words"}                       | two words
                    {"edit": "paint", "block": "lamps"}                                                   | paint
                    {"edit": "remove-block", "block": "lamps", "surprise": true}                          | surprise
                    null                                                                                  | missing
                    """)
    void badEditsAreExplainedAndChangeNothing(String edit, String says) {
        String id = server.create("Untouched", "station");
        String before = document(id);
        Answer answer = edit(id, 1, edit);
        assertThat(answer.status()).isIn(400, 422);
        assertThat(answer.json().path("detail").asString()).contains(says);
        assertThat(document(id)).isEqualTo(before);
        assertThat(read(id).path("revision").asLong()).isEqualTo(1);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            textBlock =
                    """
                    {"format":                      | line
                    []                              | object
                    {"name": "Half"}                | format
                    """)
    void brokenDocumentsAreExplained(String document, String says) {
        Answer answer =
                server.upload(
                        "/api/platforms/import?name=broken.json",
                        document.getBytes(StandardCharsets.UTF_8));
        assertThat(answer.status()).isEqualTo(422);
        assertThat(answer.json().path("detail").asString()).contains(says).contains("broken.json");
    }

    @Test
    void whatIsNotThereIsSaid() {
        assertThat(server.get("/api/platforms/00000000-0000-0000-0000-000000000000").status())
                .isEqualTo(404);
        assertThat(server.get("/api/platforms/none").json().path("detail").asString())
                .contains("none");
        assertThat(
                        server.post("/api/platforms", Map.of("name", "x", "board", "a:b:c:1.0"))
                                .json()
                                .path("field")
                                .asString())
                .isEqualTo("board");
    }

    @Test
    void questionsAboutAddressesAreAnswered() {
        String id = server.create("Asked", "station");
        JsonNode places = server.get("/api/platforms/" + id + "/at?address=0x10000014").json();
        assertThat(places.toString()).contains("LSR");
        JsonNode placement = server.get("/api/platforms/" + id + "/placement").json();
        assertThat(edit(id, 1, placement.path("edit").toString()).status()).isEqualTo(200);
        assertThat(
                        server.get("/api/platforms/" + id + "/placement")
                                .json()
                                .path("moves")
                                .valueStream())
                .as("placing again twice changes nothing")
                .isEmpty();
    }

    /** Two people who edit at the same time and try again when refused: every change is kept, one after the other. */
    @Test
    void editsAtTheSameTimeAreKeptOneAfterTheOther() throws Exception {
        String id = server.create("Busy", "station");
        try (var people = java.util.concurrent.Executors.newFixedThreadPool(4)) {
            for (String block : List.of("lamps", "gain", "service", "timer")) {
                people.submit(() -> tenTimes(id, block));
            }
        }
        JsonNode whole = read(id);
        assertThat(whole.path("revision").asLong()).isEqualTo(41);
        assertThat(whole.path("blocks").valueStream().map(each -> each.path("name").asString()))
                .contains("lamps_10", "gain_10", "service_10", "timer_10");
    }

    private void tenTimes(String id, String block) {
        String name = block;
        for (int time = 1; time <= 10; time++) {
            String next = block + "_" + time;
            int status;
            do {
                status =
                        edit(
                                        id,
                                        read(id).path("revision").asLong(),
                                        "{\"edit\": \"rename-block\", \"block\": \"%s\", \"name\": \"%s\"}"
                                                .formatted(name, next))
                                .status();
                assertThat(status).isIn(200, 409);
            } while (status != 200);
            name = next;
        }
    }

    private int name(String path, long revision, String name) {
        return server.put("%s/revisions/%s/name".formatted(path, revision), Map.of("name", name))
                .status();
    }

    @Test
    void theHistoryIsListedComparedAndGoneBackTo() {
        String id = server.create("Remembered", "station");
        String first = document(id);
        edit(
                id,
                1,
                "{\"edit\": \"set-parameter\", \"block\": \"console\", \"parameter\": \"BAUD\","
                        + " \"value\": \"9600\"}");
        edit(id, 2, "{\"edit\": \"rename-block\", \"block\": \"lamps\", \"name\": \"bar\"}");
        String third = document(id);
        String path = "/api/platforms/" + id;
        assertThat(
                        server.get(path + "/revisions")
                                .json()
                                .valueStream()
                                .map(each -> each.path("title").asString()))
                .containsExactly(
                        "rename lamps to bar",
                        "set BAUD of console to 9600",
                        "start from recipe Earthquake field station");
        assertThat(
                        server.get(path + "/changes?from=1&to=3")
                                .json()
                                .valueStream()
                                .map(each -> each.path("subject").asString()))
                .containsExactly("bar", "console.BAUD");
        assertThat(server.post(path + "/revisions/1/restore", Map.of("revision", 2)).status())
                .as("another client was quicker")
                .isEqualTo(409);
        assertThat(server.post(path + "/revisions/1/restore", Map.of("revision", 3)).status())
                .isEqualTo(200);
        assertThat(document(id)).isEqualTo(first);
        assertThat(go(id, "undo", 4)).isEqualTo(third);
        assertThat(server.get(path + "/changes?from=1&to=99").status()).isEqualTo(404);
        assertThat(name(path, 2, " handed over ")).isEqualTo(200);
        assertThat(name(path, 2, "x".repeat(81))).isEqualTo(422);
        assertThat(name(path, 99, "missing")).isEqualTo(404);
        assertThat(
                        server.get(path + "/revisions")
                                .json()
                                .valueStream()
                                .map(
                                        each ->
                                                each.path("name").asString("-")
                                                        + each.path("repeats").asLong(0)))
                .containsExactly("-3", "-0", "-0", "handed over0", "-0");
        assertThat(name(path, 2, "")).isEqualTo(200);
        assertThat(server.get(path + "/revisions").text()).doesNotContain("handed over");
        assertThat(server.get(path).json().path("revision").asLong()).isEqualTo(5);
    }
}
