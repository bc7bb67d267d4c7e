package polymetron.wiring;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.TreeMap;
import polymetron.board.Parts;
import polymetron.edit.Edit;
import polymetron.edit.Editor;
import polymetron.elaborate.InterfaceRef;
import polymetron.library.Board;
import polymetron.library.Library;
import polymetron.library.Recipe;
import polymetron.library.Vlnv;
import polymetron.platform.Block;
import polymetron.platform.Names;
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
        platform = editor.apply(platform, new Edit.Several(null, edits(library, platform, recipe)));
        WiringPlan plan = WiringPlan.propose(platform, library, WiringPlan.Decisions.NONE);
        return editor.apply(platform, plan.asEdit("wire " + recipe.title()));
    }

    /** The edits that add everything of a recipe to a platform, under free names, and lead its streams. */
    public static List<Edit> edits(Library library, Platform platform, Recipe recipe) {
        Map<String, String> groups = new HashMap<>();
        List<String> takenGroups =
                platform.blocks().stream().map(Block::group).filter(Objects::nonNull).toList();
        List<String> taken = new ArrayList<>(platform.blocks().stream().map(Block::name).toList());
        Map<String, String> names = new HashMap<>();
        List<Edit> edits = new ArrayList<>();
        for (Recipe.Ingredient each : recipe.blocks()) {
            String group =
                    each.group() == null
                            ? null
                            : groups.computeIfAbsent(
                                    each.group(), name -> Names.free(name, takenGroups));
            String wished = group == null ? each.name() : group + "_" + each.name();
            String name = Names.free(wished, taken);
            taken.add(name);
            names.put(each.group() == null ? each.name() : each.group() + "_" + each.name(), name);
            edits.add(new Edit.AddBlock(name, each.type(), new TreeMap<>(each.parameters())));
            if (each.part() != null && isFree(platform, each.part())) {
                edits.addAll(takePart(library, platform, name, each.type(), each.part()));
            }
            if (group != null) {
                edits.add(new Edit.Group(group, List.of(name)));
            }
        }
        for (Recipe.Stream stream : recipe.streams()) {
            InterfaceRef from = InterfaceRef.parse(stream.from());
            InterfaceRef to = InterfaceRef.parse(stream.to());
            edits.add(
                    new Edit.ConnectStream(
                            names.getOrDefault(from.block(), from.block()),
                            from.name(),
                            names.getOrDefault(to.block(), to.block()),
                            to.name()));
        }
        return edits;
    }

    private static boolean isFree(Platform platform, String part) {
        return platform.blocks().stream()
                .flatMap(block -> block.outward().values().stream())
                .noneMatch(outward -> part.equals(outward.part()));
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
