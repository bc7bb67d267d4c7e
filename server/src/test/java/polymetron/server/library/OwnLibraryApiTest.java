package polymetron.server.library;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.util.Random;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import polymetron.server.OneServer;
import polymetron.server.RunningServer;
import polymetron.server.RunningServer.Answer;

/** Boards and recipes of one's own. */
@ExtendWith(OneServer.class)
final class OwnLibraryApiTest {
    private static final String FORELAND = "polymetron:boards:foreland:1.0";

    private final RunningServer server;

    OwnLibraryApiTest(RunningServer server) {
        this.server = server;
    }

    private String foreland() {
        return server.get("/api/library/boards/" + FORELAND + "/document").text();
    }

    private Answer save(String document) {
        return server.upload(
                "/api/library/boards?name=mine.json", document.getBytes(StandardCharsets.UTF_8));
    }

    private int delete(String path) {
        return server.send(server.request(path).DELETE().build()).status();
    }

    private String create(String name, String board, String recipe) {
        return server.post(
                        "/api/platforms",
                        "{\"name\": \"%s\", \"board\": \"%s\", \"recipe\": \"%s\"}"
                                .formatted(name, board, recipe))
                .json()
                .path("id")
                .asString();
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '`',
            value = {
                "\"frequencyHz\" : 50000000|\"frequencyHz\" : \"fast\"|line 11, at"
                        + " /clocks/0/frequencyHz",
                "\"title\" : \"Foreland field board\",|\"titel\" : \"x\",|at the top",
                "\"pin\" : \"E1\"|\"pin\" : \"H1\"|pin H1 takes no clock",
                "\"pin\" : \"C1\"|\"pin\" : \"Z9\"|FL9-40 has no pin Z9",
                "\"standard\" : \"LVCMOS33\"|\"standard\" : \"LVCMOS18\"|LVCMOS18 needs 1.8 V",
                "\"device\" : \"FL9-40\"|\"device\" : \"FL9-41\"|there is no device FL9-41; there"
                        + " is FL9-40",
                "\"WIDTH\" : \"8\"|\"WIDTH\" : \"7\"|value of the block type is 7 wide, the part"
                        + " has 8 lines",
                "\"name\" : \"lamps\"|\"name\" : \"console\"|already something named console",
                "foreland:1.0|foreland:1.0|came with Polymetron"
            })
    void whatIsWrongWithABoardIsSaidWithItsPlace(String from, String to, String says) {
        String document = foreland();
        assertThat(document).contains(from);
        String changed =
                from.equals(to)
                        ? document
                        : document.replace(FORELAND, "own:boards:wrong:1.0")
                                .replaceFirst(Pattern.quote(from), Matcher.quoteReplacement(to));
        Answer answer = save(changed);
        assertThat(answer.status()).isBetween(400, 422);
        assertThat(answer.json().path("detail").asString()).contains(says);
        assertThat(server.get("/api/library").text()).doesNotContain("own:boards:wrong:1.0");
    }

    @Test
    void aBoardIsKeptUsedAndMissedWhenItIsGone() {
        String identity = "own:boards:inlet:1.0";
        String document =
                foreland().replace(FORELAND, identity).replace("8 status lamps", "8 green lamps");
        assertThat(save(document).status()).isEqualTo(201);
        assertThat(server.get("/api/library/boards/" + identity + "/document").text())
                .isEqualTo(document);
        String id = create("Inlet", identity, "panel");
        assertThat(server.get("/api/platforms/" + id).text()).contains("8 green lamps");
        assertThat(server.get("/api/library/boards/" + identity + "/platforms").text())
                .contains("Inlet");
        assertThat(delete("/api/library/boards/" + identity)).isEqualTo(204);
        assertThat(delete("/api/library/boards/" + identity)).isEqualTo(404);
        assertThat(server.get("/api/platforms/" + id).text())
                .contains("board %s is not in the library".formatted(identity));
        // Nothing is lost: the same board again, and the platform is whole.
        assertThat(save(document).status()).isEqualTo(201);
        assertThat(server.get("/api/platforms/" + id).json().path("findings")).isEmpty();
        delete("/api/library/boards/" + identity);
    }

    @Test
    void aGroupBecomesARecipeThatBringsItAgain() {
        String terrace = "polymetron:boards:terrace:1.0";
        String id = create("Made of", terrace, "acquisition");
        String path = "/api/platforms/" + id + "/recipes";
        assertThat(server.post(path, "{\"group\": \"missing\", \"title\": \"x\"}").text())
                .contains("no group named missing");
        assertThat(server.post(path, "{\"group\": \"ground\", \"title\": \"Console\"}").text())
                .contains("came with Polymetron");
        String save = "{\"group\": \"ground\", \"title\": \"Ground chain\"}";
        assertThat(server.post(path, save).status()).isEqualTo(201);
        String made = create("Chain", terrace, "ground_chain");
        assertThat(server.get("/api/platforms/" + made).json().path("groups").get(0).path("blocks"))
                .hasSize(8);
        // Into the platform that has the group already it goes under another name.
        assertThat(
                        server.post(
                                        "/api/platforms/" + id + "/plan",
                                        "{\"recipe\": \"ground_chain\"}")
                                .text())
                .contains("ground_2_split");
        assertThat(delete("/api/library/recipes/ground_chain")).isEqualTo(204);
        assertThat(delete("/api/library/recipes/console")).isEqualTo(404);
    }

    @Test
    void whatIsNoDocumentIsRefused() {
        assertThat(save("{").text()).contains("mine.json, line 1");
        byte[] noise = new byte[300];
        new Random(5).nextBytes(noise);
        assertThat(server.upload("/api/library/boards", noise).status()).isEqualTo(422);
    }
}
