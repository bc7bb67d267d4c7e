package polymetron.library;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import polymetron.Shipped;
import polymetron.board.BoardChecks;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.Elaborator;
import polymetron.finding.Checks;
import polymetron.handoff.Handoff;
import polymetron.json.DocumentException;
import polymetron.json.Documents;
import polymetron.platform.Platform;
import polymetron.wiring.Starter;

/** Does what docs/library.md says, with its own examples. */
final class LibraryGuideTest {
    private static List<String> examples() throws IOException {
        String guide = Files.readString(Path.of("../docs/library.md"));
        return Pattern.compile("```json\n(.*?)```", Pattern.DOTALL)
                .matcher(guide)
                .results()
                .map(match -> match.group(1))
                .toList();
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '`',
            value = {
                "\"kind\": \"peripheral\"|\"kind\": \"gadget\"|line 4|/kind|peripheral",
                "\"dataWidth\": 32|\"dataWidth\": true|line 23|/busInterfaces/0/dataWidth|number",
                "\"size\": 4096,|\"sise\": 4096,|line 2|sise|size",
                "\"identity\": \"example:io:tone:1.0\",||line 1|identity|required",
                "\"identity\": \"example:io:tone:1.0\"|\"identity\": \"tone\"|line 3|/identity|:",
                "\"minimum\": 8|\"minimum\": \"8 +\"|line 11|/parameters/0/minimum|8 +"
            })
    void aWrongKeyIsNamedWithFileAndLine(
            String from, String to, String line, String key, String says) throws IOException {
        String text = examples().getFirst();
        assertThat(text).contains(from);
        String changed = text.replace(from, to == null ? "" : to);
        assertThatThrownBy(() -> BlockTypeDocument.read("tone/block-type.json", changed))
                .isInstanceOf(DocumentException.class)
                .hasMessageContainingAll("tone/block-type.json", line, key, says);
    }

    @Test
    void theExamplesOfTheGuideWork() throws IOException {
        List<String> examples = examples();
        assertThat(examples).hasSize(4);
        BlockType type = BlockTypeDocument.read("block type", examples.get(0));
        Board board = Documents.read("board", examples.get(2), Board.class);
        Recipe recipe = Documents.read("recipe", examples.get(3), Recipe.class);

        BlockType gain = BlockTypeDocument.read("block type", examples.get(1));

        List<BlockType> types = new ArrayList<>(Shipped.LIBRARY.types());
        types.add(type);
        types.add(gain);
        Library library =
                new Library(
                        types,
                        List.of(board),
                        List.of(Shipped.LIBRARY.device(board.device()).orElseThrow()),
                        List.of(recipe),
                        Map.of());
        assertThat(BoardChecks.of(library, board)).isEmpty();
        Platform platform = Starter.start(library, "Bell", board.identity(), recipe);
        ElaboratedPlatform worked = new Elaborator(library).elaborate(platform);
        assertThat(Checks.run(worked)).isEmpty();
        assertThat(worked.block("bell").orElseThrow().shape().number("HALF")).isEqualTo(25_000);
        assertThat(worked.streams()).hasSize(2);
        assertThat(Handoff.of(worked).files().toString()).contains("BELL_BASE", "example,tone-1.0");
    }
}
