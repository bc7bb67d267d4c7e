package polymetron.server.library;

import jakarta.annotation.Nullable;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import polymetron.bus.Protocol;
import polymetron.library.BlockType;
import polymetron.library.Board;
import polymetron.library.Library;
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

    /** A block type. */
    public record TypeView(
            String identity,
            String kind,
            String title,
            String summary,
            String description,
            String defaultName,
            List<ParameterView> parameters) {}

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

    /** A board. */
    public record BoardView(
            String identity,
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
     * @param parts parts that a board has to have for it
     */
    public record RecipeView(
            String name, String title, String summary, List<String> blocks, List<String> parts) {}

    static LibraryView of(Library library) {
        return new LibraryView(
                library.types().stream().map(LibraryView::type).toList(),
                library.boards().stream().map(LibraryView::board).toList(),
                library.recipes().stream().map(LibraryView::recipe).toList(),
                Arrays.stream(Protocol.values())
                        .map(
                                each ->
                                        new ProtocolView(
                                                each.toString(), each.title(), each.dataWidths()))
                        .toList());
    }

    private static TypeView type(BlockType type) {
        return new TypeView(
                type.identity().toString(),
                type.kind().toString(),
                type.title(),
                type.summary(),
                type.description(),
                type.defaultName(),
                type.parameters().stream().map(LibraryView::parameter).toList());
    }

    /** What is allowed, in words; empty where everything is. */
    static String range(ParameterType parameter) {
        List<String> range = new ArrayList<>();
        if (parameter.minimum() != null || parameter.maximum() != null) {
            range.add(text(parameter.minimum()) + " to " + text(parameter.maximum()));
        }
        if (parameter.multipleOf() != null) {
            range.add("in steps of " + parameter.multipleOf());
        }
        return String.join(" ", range);
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

    private static BoardView board(Board board) {
        return new BoardView(
                board.identity().toString(),
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

    private static RecipeView recipe(Recipe recipe) {
        return new RecipeView(
                recipe.name(),
                recipe.title(),
                recipe.summary(),
                recipe.blocks().stream().map(Recipe.Ingredient::name).toList(),
                recipe.parts());
    }
}
