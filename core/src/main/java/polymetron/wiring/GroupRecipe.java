package polymetron.wiring;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import polymetron.edit.Groups;
import polymetron.edit.RejectedEdit;
import polymetron.library.Recipe;
import polymetron.platform.Block;
import polymetron.platform.Names;
import polymetron.platform.Outward;
import polymetron.platform.Platform;
import polymetron.platform.StreamWire;

/**
 * A group as a recipe: its blocks with their parameters and board parts, and the streams between them. Clocks, buses,
 * addresses and interrupts are left to the wiring plan of the platform that it goes into.
 */
public final class GroupRecipe {
    private GroupRecipe() {}

    /**
     * @throws RejectedEdit when there is no such group, or the title gives no name
     */
    public static Recipe of(Platform platform, String group, String title, String summary) {
        List<Block> members = Groups.membersOf(platform, group);
        if (members.isEmpty()) {
            throw new RejectedEdit("group", "there is no group named %s".formatted(group));
        }
        if (title == null || title.isBlank() || title.length() > 80) {
            throw new RejectedEdit("title", "a recipe needs a title of at most 80 characters");
        }
        List<Recipe.Ingredient> blocks = new ArrayList<>();
        List<Recipe.Stream> streams = new ArrayList<>();
        for (Block block : members) {
            blocks.add(
                    new Recipe.Ingredient(
                            Groups.localName(block),
                            block.type(),
                            group,
                            block.parameters(),
                            part(block)));
            for (Map.Entry<String, StreamWire> entry : block.streams().entrySet()) {
                String to = entry.getValue().block();
                if (members.stream().anyMatch(each -> each.name().equals(to))) {
                    streams.add(
                            new Recipe.Stream(
                                    block.name() + "." + entry.getKey(),
                                    to + "." + entry.getValue().sink()));
                }
            }
        }
        return new Recipe(
                Recipe.FORMAT,
                Names.fromTitle(title),
                title.strip(),
                summary == null || summary.isBlank() ? "From " + platform.name() : summary.strip(),
                null,
                blocks,
                streams);
    }

    private static String part(Block block) {
        return block.outward().values().stream()
                .map(Outward::part)
                .filter(each -> each != null)
                .findFirst()
                .orElse(null);
    }
}
