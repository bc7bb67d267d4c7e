package polymetron.server.library;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import polymetron.ownblock.OwnBlockExamples;
import polymetron.server.OneServer;
import polymetron.server.RunningServer;
import polymetron.server.RunningServer.Answer;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.ObjectMapper;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/** Block types that people write: looked at, kept, shared, changed by two at once, used, upgraded, and gone. */
@ExtendWith(OneServer.class)
final class OwnBlockApiTest {
    private final RunningServer server;

    OwnBlockApiTest(RunningServer server) {
        this.server = server;
    }

    /** A chime of a vendor of its own, so that tests do not meet. */
    private static String chime(String vendor) {
        return OwnBlockExamples.chime()
                .replace("bellworks", vendor)
                .replace("chime.h", vendor + "_chime.h");
    }

    /** Neither the files nor what the definition says of them. */
    private static String withoutHdl(String block) {
        ObjectNode document = (ObjectNode) new ObjectMapper().readTree(block);
        document.remove("hardware");
        ((ObjectNode) document.path("definition")).remove("hardware");
        return document.toString();
    }

    private Answer upload(String path, String text) {
        return server.upload("/api/library/blocks" + path, text.getBytes(StandardCharsets.UTF_8));
    }

    private long keep(String document) {
        Answer kept = upload("?name=chime.json", document);
        assertThat(kept.status()).as(kept.text()).isEqualTo(201);
        return kept.json().path("change").asLong();
    }

    private String platformWith(String type) {
        String id = server.create("Bells of " + type, "console");
        Answer added =
                server.post(
                        "/api/platforms/" + id + "/edits",
                        Map.of(
                                "revision",
                                1,
                                "edit",
                                Map.of(
                                        "edit",
                                        "add-block",
                                        "name",
                                        "chime",
                                        "type",
                                        type,
                                        "parameters",
                                        Map.of())));
        assertThat(added.status()).as(added.text()).isEqualTo(200);
        return id;
    }

    @Test
    void isLookedAtKeptAndShared() {
        JsonNode look = upload("/look", chime("shared")).json();
        assertThat(look.path("problems")).isEmpty();
        assertThat(look.path("registers").get(1).path("offset").asLong()).isEqualTo(8);
        assertThat(look.path("skeleton").asString()).contains("module shared_chime");
        keep(chime("shared"));
        JsonNode sheet = server.get("/api/library/types/shared:io:chime:1.0").json();
        assertThat(sheet.path("driver").asString()).contains("chime_set_level_loud");
        // The same from another installation: one file, the same bytes.
        String document = server.get("/api/library/blocks/shared:io:chime:1.0/document").text();
        assertThat(document).isEqualTo(chime("shared"));
        assertThat(upload("?name=chime.json", document).json().path("detail").asString())
                .startsWith("there is a block type shared:io:chime:1.0 already");
        assertThat(server.get("/api/library").text()).contains("shared:io:chime:1.0");
    }

    @Test
    void twoWhoEditOneBlockDoNotOverwriteEachOther() {
        long change = keep(chime("two"));
        String one = chime("two").replace("It strikes.", "It strikes hard.");
        String other = chime("two").replace("It strikes.", "It strikes softly.");
        Answer first = upload("?name=chime.json&change=" + change, one);
        assertThat(first.status()).isEqualTo(201);
        Answer second = upload("?name=chime.json&change=" + change, other);
        assertThat(second.status()).isEqualTo(422);
        assertThat(second.json().path("detail").asString())
                .startsWith("two:io:chime:1.0 was changed by another user meanwhile");
        assertThat(server.get("/api/library/blocks/two:io:chime:1.0/document").text())
                .contains("It strikes hard.");
    }

    @Test
    void anInterfaceInUseStaysAndAVersionReplacesIt() {
        long change = keep(chime("used"));
        String id = platformWith("used:io:chime:1.0");
        String without =
                chime("used")
                        .replace("\"name\" : \"SOFT\"", "\"name\" : \"MILD\"")
                        .replace("_SOFT", "_MILD");
        Answer refused = upload("?name=chime.json&change=" + change, without);
        assertThat(refused.status()).isEqualTo(422);
        assertThat(refused.json().path("detail").asString())
                .isEqualTo(
                        "field of LEVEL SOFT is gone, and Bells of used:io:chime:1.0 is made with"
                                + " it; give it a new version, to which they can be upgraded");
        keep(without.replace("used:io:chime:1.0", "used:io:chime:1.1"));
        JsonNode platform = server.get("/api/platforms/" + id + "/blocks/chime").json();
        assertThat(platform.toString()).contains("used:io:chime:1.1");
    }

    @Test
    void aBlockThatIsGoneIsMissedAndComesBack() {
        keep(chime("gone"));
        String id = platformWith("gone:io:chime:1.0");
        assertThat(server.get("/api/library/blocks/gone:io:chime:1.0/platforms").json())
                .extracting(JsonNode::asString)
                .containsExactly("Bells of gone:io:chime:1.0");
        assertThat(
                        server.send(
                                        server.request("/api/library/blocks/gone:io:chime:1.0")
                                                .DELETE()
                                                .build())
                                .status())
                .isEqualTo(204);
        assertThat(server.get("/api/platforms/" + id).text())
                .contains("gone:io:chime:1.0")
                .contains("no block type");
        keep(chime("gone"));
        assertThat(server.get("/api/platforms/" + id).text()).doesNotContain("no block type");
    }

    @Test
    void whatIsWrongSaysWhere() {
        assertThat(upload("?name=chime.json", chime("polymetron")).json().path("detail").asString())
                .startsWith(
                        "chime.json, at /definition/identity: polymetron is the vendor of the"
                                + " blocks that come with Polymetron");
        assertThat(upload("/look", "{").json().path("problems").get(0).path("what").asString())
                .contains("block");
        // While names are typed they come to one for a moment.
        String clash = chime("clash").replace("\"SOFT\"", "\"LOUD\"");
        assertThat(upload("/look", clash).json().path("problems").get(0).path("what").asString())
                .contains("both called LEVEL_LOUD in hardware");
        assertThat(upload("?name=x.json", clash).status()).isEqualTo(422);
        assertThat(upload("?name=x.json", "{}").status()).isEqualTo(422);
        assertThat(upload("/registers", "A,0,B,0,XX").status()).isEqualTo(422);
        assertThat(server.get("/api/library/blocks/no:such:block:1.0").status()).isEqualTo(404);
        assertThat(upload("?name=big.json", "x".repeat(9 << 20)).status()).isEqualTo(413);
    }

    @Test
    void compilersLookAtABlockThatIsNotKept() {
        assertThat(upload("/compile", "{").status()).isEqualTo(422);
        String wrong = chime("heard").replace("apb", "nobus");
        assertThat(upload("/compile", wrong).status()).isEqualTo(422);
        assertThat(upload("/compile", withoutHdl(chime("heard"))).json().path("missing").asString())
                .isEqualTo("There is no HDL yet.");
        JsonNode found = upload("/compile", chime("heard")).json();
        // Where a machine has no compilers or no sandbox, that is what is said.
        if (found.path("missing").isNull() || found.path("missing").isMissingNode()) {
            assertThat(found.path("tools").get(0).asString()).isEqualTo("Verilator");
            assertThat(found.path("said")).noneMatch(each -> each.path("isError").asBoolean());
        } else {
            assertThat(found.path("missing").asString()).contains("missing on this machine");
        }
        assertThat(server.get("/api/library/blocks/heard:io:chime:1.0").status()).isEqualTo(404);
    }

    @Test
    void theRegistersOfABlockThatIsNotKeptAreTriedInItsHdl() {
        assertThat(upload("/self-test", "{").status()).isEqualTo(422);
        assertThat(
                        upload("/self-test", withoutHdl(chime("tried")))
                                .json()
                                .path("missing")
                                .asString())
                .isEqualTo("There is no HDL yet.");
        JsonNode found = upload("/self-test", chime("tried")).json();
        // Where a machine has no compilers or no sandbox, that is what is said.
        if (found.path("missing").isNull() || found.path("missing").isMissingNode()) {
            assertThat(found.path("different")).isEmpty();
            assertThat(found.path("accesses").asInt()).isGreaterThan(20);
        } else {
            assertThat(found.path("missing").asString()).contains("missing on this machine");
        }
    }

    @Test
    void theTestsOfABlockThatIsNotKeptAreRun() {
        assertThat(upload("/test", "{").status()).isEqualTo(422);
        assertThat(upload("/test", chime("untested")).json().path("missing").asString())
                .contains(" tests yet");
        JsonNode look = upload("/look", chime("tested")).json();
        ObjectNode block = (ObjectNode) new ObjectMapper().readTree(chime("tested"));
        ObjectNode test = block.putArray("tests").addObject();
        test.put("name", look.path("testName").asString());
        ArrayNode lines = test.putArray("lines");
        look.path("test").asString().lines().forEach(lines::add);
        JsonNode found = upload("/test", block.toString()).json();
        // Where a machine has no compilers or no sandbox, that is what is said.
        if (found.path("missing").isNull() || found.path("missing").isMissingNode()) {
            assertThat(found.path("tests").path(0).path("passes").asBoolean()).isTrue();
            // It looks at nothing yet.
            assertThat(found.path("noticed").asInt()).isZero();
        } else {
            assertThat(found.path("missing").asString()).contains("missing on this machine");
        }
    }

    @Test
    void aBlockThatIsNotKeptIsMeasured() {
        assertThat(upload("/size", "{").status()).isEqualTo(422);
        JsonNode found = upload("/size", chime("measured")).json();
        // Where a machine has no yosys or no sandbox, that is what is said.
        if (found.path("missing").isNull() || found.path("missing").isMissingNode()) {
            assertThat(found.path("made").path("lookupTables").asInt()).isBetween(10, 500);
            assertThat(found.path("said").path("lookupTables").asInt()).isPositive();
            assertThat(found.path("withRegisters").asBoolean()).isTrue();
            assertThat(
                            upload("/size", withoutHdl(chime("measured")))
                                    .json()
                                    .path("missing")
                                    .asString())
                    .isEqualTo("There is no HDL yet.");
        } else {
            assertThat(found.path("missing").asString()).contains("missing on this machine");
        }
    }

    @Test
    void verilogIsProposedOrRefused() {
        Answer found =
                server.post(
                        "/api/library/blocks/from-hdl",
                        Map.of(
                                "files",
                                List.of(
                                        Map.of(
                                                "name",
                                                "inner.v",
                                                "text",
                                                "module inner (input a, output b); assign b = a;"
                                                        + " endmodule\n"),
                                        Map.of(
                                                "name",
                                                "outer.v",
                                                "text",
                                                "module outer (input clk, input a, output b); inner"
                                                        + " i (.a(a), .b(b)); endmodule\n"))));
        assertThat(found.json().path("module").asString())
                .as("the one that none uses")
                .isEqualTo("outer");
        assertThat(found.json().path("document").asString()).contains("outer_fitted");
        Answer refused =
                server.post(
                        "/api/library/blocks/from-hdl",
                        Map.of(
                                "files",
                                List.of(
                                        Map.of(
                                                "name",
                                                "bad.v",
                                                "text",
                                                "module bad (input a);\n"
                                                        + " initial $system(\"id\");\n"
                                                        + "endmodule\n"))));
        assertThat(refused.json().path("document").isMissingNode()).isTrue();
        assertThat(refused.json().path("problems").get(0).path("at").asString())
                .isEqualTo("bad.v:2");
        Answer named =
                server.post(
                        "/api/library/blocks/from-hdl",
                        Map.of("files", List.of(Map.of("name", "../x.v", "text", ""))));
        assertThat(named.json().path("document").isMissingNode()).isTrue();
        assertThat(named.json().path("problems").get(0).path("what").asString())
                .startsWith("a file is named with letters");
    }
}
