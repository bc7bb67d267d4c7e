package polymetron.library;

import java.util.List;
import java.util.Objects;
import polymetron.json.DocumentFormat;

/**
 * A start for a platform: blocks and board parts that are added and then wired by the wiring plan.
 *
 * @param boards boards that it works on; empty for any board that has the parts
 */
public record Recipe(
        String format,
        String name,
        String title,
        String summary,
        List<Vlnv> boards,
        List<Ingredient> blocks,
        List<Stream> streams) {
    public static final String FORMAT = "polymetron-recipe/1";

    private static final DocumentFormat<Recipe> DOCUMENT =
            new DocumentFormat<>(FORMAT, null, Recipe.class);

    /**
     * A block of a recipe.
     *
     * @param group group that it belongs to, whose name its own begins with; null for none
     * @param part board part that the block drives; null for none
     */
    public record Ingredient(
            String name,
            Vlnv type,
            String group,
            java.util.Map<String, String> parameters,
            String part) {
        public Ingredient {
            parameters = parameters == null ? java.util.Map.of() : java.util.Map.copyOf(parameters);
        }
    }

    /** A stream from a source to a sink, each as {@code block.name}. */
    public record Stream(String from, String to) {}

    public Recipe {
        streams = Lists.orEmpty(streams);
        boards = Lists.orEmpty(boards);
        blocks = Lists.orEmpty(blocks);
    }

    /** Parts that a board has to have for it. */
    public List<String> parts() {
        return blocks.stream().map(Ingredient::part).filter(Objects::nonNull).toList();
    }

    public boolean fits(Board board) {
        return (boards.isEmpty() || boards.contains(board.identity()))
                && parts().stream().allMatch(part -> board.part(part).isPresent());
    }

    /**
     * @param name what the document is called in messages, such as its file name
     * @throws polymetron.json.DocumentException when it is no recipe; the message names line and key
     */
    public static Recipe read(String name, String text) {
        return DOCUMENT.read(name, text);
    }

    /** The same for one that is kept already, whatever characters it has. */
    public static Recipe readKept(String name, String text) {
        return DOCUMENT.readKept(name, text);
    }
}
