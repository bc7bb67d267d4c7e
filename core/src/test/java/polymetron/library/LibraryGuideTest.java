package polymetron.library;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;
import polymetron.Shipped;
import polymetron.board.BoardChecks;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.Elaborator;
import polymetron.finding.Checks;
import polymetron.handoff.Handoff;
import polymetron.json.Documents;
import polymetron.platform.Platform;
import polymetron.wiring.Starter;

/** Does what docs/library.md says, with its own examples. */
final class LibraryGuideTest {
    @Test
    void theExamplesOfTheGuideWork() throws IOException {
        String guide = Files.readString(Path.of("../docs/library.md"));
        List<String> examples =
                Pattern.compile("```json\n(.*?)```", Pattern.DOTALL)
                        .matcher(guide)
                        .results()
                        .map(match -> match.group(1))
                        .toList();
        assertThat(examples).hasSize(4);
        BlockType type = Documents.read("block type", examples.get(0), BlockType.class);
        Board board = Documents.read("board", examples.get(2), Board.class);
        Recipe recipe = Documents.read("recipe", examples.get(3), Recipe.class);

        BlockType gain = Documents.read("block type", examples.get(1), BlockType.class);

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
