package polymetron.server.library;

import jakarta.annotation.Nullable;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import polymetron.bus.Protocol;
import polymetron.library.BlockType;
import polymetron.library.Board;
import polymetron.library.Library;
import polymetron.library.OutwardInterface;
import polymetron.library.ParameterType;
import polymetron.library.Recipe;
import polymetron.quantity.Frequency;

/** What the library offers. */
public record LibraryView(
        List<TypeView> types,
        List<BoardView> boards,
        List<RecipeView> recipes,
        List<ProtocolView> protocols) {

    /** A bus protocol and the data widths in bits that it allows. */
    public record ProtocolView(String name, String title, List<Integer> dataWidths) {}

    /**
     * A block type.
     *
     * @param newest whether there is no newer version of it
     * @param own whether it is one of the users' own, so that it can be changed
     * @param needs hard block that a device has to have for it; missing for one that fits any device
     */
    public record TypeView(
            String identity,
            boolean newest,
            boolean own,
            @Nullable String needs,
            String kind,
            String title,
            String summary,
            String description,
            String defaultName,
            List<BoardSideView> outward,
            List<ParameterView> parameters) {}

    /** Ports of a block type that leave the chip, and the sorts of board part that they drive. */
    public record BoardSideView(String name, List<String> partKinds, List<String> ports) {}

    /** A parameter of a block type. */
    public record ParameterView(
            String name,
            String title,
            String form,
            String initial,
            @Nullable String unit,
            String range,
            List<ChoiceView> choices,
            String explains) {}

    /** One allowed text of a choice. */
    public record ChoiceView(String value, String title) {}

    /**
     * A board.
     *
     * @param own whether it is one of the users' own, so that it can be changed
     * @param hard hard blocks of its device
     */
    public record BoardView(
            String identity,
            boolean own,
            List<String> hard,
            String title,
            String summary,
            String device,
            List<String> clocks,
            List<PartView> parts) {}

    /** A part of a board, and the block types that can drive it. */
    public record PartView(
            String name,
            String kind,
            String title,
            String summary,
            int lines,
            List<String> drivers) {}

    /**
     * A recipe.
     *
     * @param own whether it is one of the users' own, so that it can be removed
     * @param boards boards that it works on; empty for any that has the parts
     * @param parts parts that a board has to have for it
     */
    public record RecipeView(
            String name,
            boolean own,
            String title,
            String summary,
            List<String> boards,
            List<String> blocks,
            List<String> parts) {}

    static LibraryView of(Library library, Library shipped) {
        return new LibraryView(
                library.types().stream().map(type -> type(library, shipped, type)).toList(),
                library.boards().stream().map(board -> board(library, shipped, board)).toList(),
                library.recipes().stream().map(recipe -> recipe(shipped, recipe)).toList(),
                Arrays.stream(Protocol.values())
                        .map(
                                each ->
                                        new ProtocolView(
                                                each.toString(), each.title(), each.dataWidths()))
                        .toList());
    }

    private static TypeView type(Library library, Library shipped, BlockType type) {
        return new TypeView(
                type.identity().toString(),
                library.versionsOf(type.identity()).getLast().equals(type),
                shipped.type(type.identity()).isEmpty(),
                type.needs(),
                type.kind().toString(),
                type.title(),
                type.summary(),
                type.description(),
                type.defaultName(),
                type.outward().stream()
                        .map(
                                outward ->
                                        new BoardSideView(
                                                outward.name(),
                                                outward.partKinds(),
                                                outward.ports().stream()
                                                        .map(OutwardInterface.Port::name)
                                                        .toList()))
                        .toList(),
                type.parameters().stream().map(LibraryView::parameter).toList());
    }

    /** What is allowed, in words; empty where everything is. */
    static String range(ParameterType parameter) {
        List<String> range = new ArrayList<>();
        if (parameter.minimum() != null || parameter.maximum() != null) {
            range.add(text(parameter.minimum()) + " to " + text(parameter.maximum()));
        }
        if (parameter.multipleOf() != null) {
            range.add(
                    parameter.isPowerOfTwo()
                            ? "a power of two"
                            : "in steps of " + parameter.multipleOf());
        }
        return String.join(", ", range);
    }

    private static String text(Object limit) {
        return limit == null ? "…" : limit.toString();
    }

    /** How a parameter is shown. */
    public static ParameterView parameter(ParameterType parameter) {
        return new ParameterView(
                parameter.name(),
                parameter.title(),
                parameter.form().toString(),
                parameter.initial(),
                parameter.unit(),
                range(parameter),
                parameter.choices().stream()
                        .map(choice -> new ChoiceView(choice.value(), choice.title()))
                        .toList(),
                parameter.explains());
    }

    private static BoardView board(Library library, Library shipped, Board board) {
        return new BoardView(
                board.identity().toString(),
                shipped.board(board.identity()).isEmpty(),
                library.deviceOf(board)
                        .map(device -> List.copyOf(device.hard().keySet()))
                        .orElse(List.of()),
                board.title(),
                board.summary(),
                board.device(),
                board.clocks().stream()
                        .map(clock -> Frequency.format(clock.frequencyHz()))
                        .toList(),
                board.parts().stream()
                        .map(
                                part ->
                                        new PartView(
                                                part.name(),
                                                part.kind(),
                                                part.title(),
                                                part.summary(),
                                                part.signals().stream()
                                                        .mapToInt(Board.Signal::width)
                                                        .sum(),
                                                part.drivers().stream()
                                                        .map(driver -> driver.type().toString())
                                                        .toList()))
                        .toList());
    }

    private static RecipeView recipe(Library shipped, Recipe recipe) {
        return new RecipeView(
                recipe.name(),
                shipped.recipe(recipe.name()).isEmpty(),
                recipe.title(),
                recipe.summary(),
                recipe.boards().stream().map(Object::toString).toList(),
                recipe.blocks().stream().map(Recipe.Ingredient::name).toList(),
                recipe.parts());
    }
}
