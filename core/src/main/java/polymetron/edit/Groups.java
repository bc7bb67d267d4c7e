package polymetron.edit;

import java.util.List;
import polymetron.platform.Block;
import polymetron.platform.Names;
import polymetron.platform.Platform;

/**
 * Groups of blocks. The name of a block in a group begins with the group's, so that every output has the prefix
 * without knowing about groups.
 */
public final class Groups {
    private Groups() {}

    /** Name of a block within its group: without the prefix. */
    public static String localName(Block block) {
        return block.group() == null || !block.name().startsWith(prefix(block.group()))
                ? block.name()
                : block.name().substring(prefix(block.group()).length());
    }

    /** Name of a block as it must be in a group; a null group leaves it as it is. */
    static String fullName(String group, String name) {
        return group == null || name.startsWith(prefix(group)) ? name : prefix(group) + name;
    }

    private static String prefix(String group) {
        return group + "_";
    }

    static Platform group(Platform platform, Edit.Group edit) {
        check(edit.name());
        require(!edit.blocks().isEmpty(), "blocks", "a group needs at least one block");
        Platform result = platform;
        for (String name : edit.blocks()) {
            Block block =
                    result.block(name)
                            .orElseThrow(
                                    () ->
                                            new RejectedEdit(
                                                    "blocks",
                                                    "there is no block named %s".formatted(name)));
            result = rename(result, block, fullName(edit.name(), localName(block)), edit.name());
        }
        return result;
    }

    static Platform ungroup(Platform platform, String group) {
        Platform result = platform;
        for (Block block : members(platform, group)) {
            String local = localName(block);
            boolean free = Names.isName(local) && result.block(local).isEmpty();
            result = rename(result, block, free ? local : block.name(), null);
        }
        return result;
    }

    static Platform renameGroup(Platform platform, Edit.RenameGroup edit) {
        check(edit.newName());
        Platform result = platform;
        for (Block block : members(platform, edit.name())) {
            result =
                    rename(
                            result,
                            block,
                            fullName(edit.newName(), localName(block)),
                            edit.newName());
        }
        return result;
    }

    /** The blocks of a group; none when there is no such group. */
    public static List<Block> membersOf(Platform platform, String group) {
        return platform.blocks().stream()
                .filter(each -> each.group() != null && each.group().equals(group))
                .toList();
    }

    private static List<Block> members(Platform platform, String group) {
        List<Block> members = membersOf(platform, group);
        require(!members.isEmpty(), "name", "there is no group named %s".formatted(group));
        return members;
    }

    private static Platform rename(Platform platform, Block block, String name, String group) {
        require(Names.isName(name), "name", Names.refusal(name));
        require(
                name.equals(block.name()) || platform.block(name).isEmpty(),
                "name",
                "there is already a block named %s".formatted(name));
        Platform moved =
                platform.withBlocks(
                        platform.blocks().stream()
                                .map(
                                        each ->
                                                each.name().equals(block.name())
                                                        ? each.withName(name).withGroup(group)
                                                        : each)
                                .toList());
        return name.equals(block.name()) ? moved : References.rename(moved, block.name(), name);
    }

    private static void check(String group) {
        require(Names.isName(group), "name", Names.refusal(group));
    }

    private static void require(boolean condition, String field, String message) {
        if (!condition) {
            throw new RejectedEdit(field, message);
        }
    }
}
