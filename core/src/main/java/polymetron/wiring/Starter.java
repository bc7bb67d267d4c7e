package polymetron.wiring;

import java.util.ArrayList;
import java.util.List;
import java.util.TreeMap;
import polymetron.board.Parts;
import polymetron.edit.Edit;
import polymetron.edit.Editor;
import polymetron.elaborate.InterfaceRef;
import polymetron.library.Board;
import polymetron.library.Library;
import polymetron.library.Recipe;
import polymetron.library.Vlnv;
import polymetron.platform.Platform;

/** Makes a new platform from a board and a recipe. */
public final class Starter {
    private Starter() {}

    /**
     * @param recipe null for an empty platform
     * @throws polymetron.edit.RejectedEdit when the recipe does not work on the board
     */
    public static Platform start(Library library, String name, Vlnv board, Recipe recipe) {
        Platform platform = Platform.empty(Editor.title(name), board);
        if (recipe == null) {
            return platform;
        }
        Editor editor = new Editor(library);
        for (Recipe.Ingredient ingredient : recipe.blocks()) {
            platform = editor.apply(platform, add(library, platform, ingredient));
        }
        platform = editor.apply(platform, new Edit.Several(null, joins(recipe)));
        WiringPlan plan = WiringPlan.propose(platform, library, WiringPlan.Decisions.NONE);
        return editor.apply(platform, plan.asEdit("wire " + recipe.title()));
    }

    private static Edit add(Library library, Platform platform, Recipe.Ingredient ingredient) {
        List<Edit> edits = new ArrayList<>();
        edits.add(
                new Edit.AddBlock(
                        ingredient.name(),
                        ingredient.type(),
                        new TreeMap<>(ingredient.parameters())));
        if (ingredient.part() != null) {
            edits.addAll(
                    takePart(
                            library,
                            platform,
                            ingredient.name(),
                            ingredient.type(),
                            ingredient.part()));
        }
        if (ingredient.group() != null) {
            edits.add(new Edit.Group(ingredient.group(), List.of(ingredient.name())));
        }
        return new Edit.Several("add " + ingredient.name(), edits);
    }

    private static List<Edit> joins(Recipe recipe) {
        List<Edit> edits = new ArrayList<>();
        for (Recipe.Stream stream : recipe.streams()) {
            InterfaceRef from = InterfaceRef.parse(stream.from());
            InterfaceRef to = InterfaceRef.parse(stream.to());
            edits.add(new Edit.ConnectStream(from.block(), from.name(), to.block(), to.name()));
        }
        return edits;
    }

    /** The edits that set a block up for a board part and connect it; empty when the board has no such part. */
    public static List<Edit> takePart(
            Library library, Platform platform, String block, Vlnv type, String partName) {
        List<Edit> edits = new ArrayList<>();
        Board.Part part =
                library.board(platform.board()).flatMap(board -> board.part(partName)).orElse(null);
        if (part != null) {
            edits.addAll(Parts.parameterEdits(block, type, part));
            part.drivers().stream()
                    .filter(driver -> driver.type().equals(type))
                    .findFirst()
                    .ifPresent(
                            driver ->
                                    edits.add(
                                            new Edit.BindPart(block, driver.outward(), partName)));
        }
        return edits;
    }
}
