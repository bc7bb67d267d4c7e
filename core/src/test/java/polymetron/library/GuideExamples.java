package polymetron.library;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.regex.Pattern;
import polymetron.Shipped;
import polymetron.json.Documents;
import polymetron.platform.Platform;
import polymetron.wiring.Starter;

/** The examples of docs/library.md, put into a library from outside, as the guide says. */
public final class GuideExamples {
    private final List<String> texts;

    public GuideExamples() throws IOException {
        texts =
                Pattern.compile("```json\n(.*?)```", Pattern.DOTALL)
                        .matcher(Files.readString(Path.of("../docs/library.md")))
                        .results()
                        .map(match -> match.group(1))
                        .toList();
    }

    /** The documents, in their order in the guide. */
    List<String> texts() {
        return texts;
    }

    Board board() {
        return Documents.read("board", textOf(Board.FORMAT), Board.class);
    }

    private Recipe recipe() {
        return Recipe.read("recipe", textOf("polymetron-recipe/1"));
    }

    private String textOf(String format) {
        return texts.stream().filter(text -> text.contains(format)).findFirst().orElseThrow();
    }

    /** What comes with the product and the block types, the board and the recipe of the guide. */
    public Library library() {
        List<BlockType> types = new ArrayList<>(Shipped.LIBRARY.types());
        for (String text : texts) {
            if (text.contains(BlockType.FORMAT)) {
                types.add(BlockTypeDocument.read("block type", text));
            }
        }
        return new Library(
                types,
                List.of(board()),
                List.of(Shipped.LIBRARY.device(board().device()).orElseThrow()),
                List.of(recipe()),
                Map.of(Shipped.UART, Shipped.LIBRARY.driverFiles(Shipped.UART)));
    }

    /** The platform that the guide's recipe makes on its board. */
    public Platform platform() {
        return Starter.start(library(), "Bell", board().identity(), recipe());
    }
}
