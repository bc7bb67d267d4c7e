package polymetron.edit;

import static polymetron.edit.Known.require;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import polymetron.library.BlockType;
import polymetron.library.ParameterType;
import polymetron.platform.Block;
import polymetron.platform.Names;
import polymetron.platform.Platform;

/** Blocks: added, removed, renamed, of another type or with other parameters. */
final class BlockEdits {
    private BlockEdits() {}

    static Platform add(Known known, Edit.AddBlock edit) {
        require(Names.isName(edit.name()), "name", Names.refusal(edit.name()));
        require(
                known.platform().block(edit.name()).isEmpty(),
                "name",
                "there is already a block named %s".formatted(edit.name()));
        require(edit.type() != null, "type", "the block type is missing");
        require(
                known.library().type(edit.type()).isPresent(),
                "type",
                "the library has no block type %s".formatted(edit.type()));
        Block block = Block.of(edit.name(), edit.type());
        List<Block> blocks = new ArrayList<>(known.platform().blocks());
        blocks.add(block);
        Platform result = known.platform().withBlocks(blocks);
        for (Map.Entry<String, String> entry :
                new TreeMap<>(edit.parameters() == null ? Map.of() : edit.parameters())
                        .entrySet()) {
            result =
                    setParameter(
                            known.with(result),
                            new Edit.SetParameter(edit.name(), entry.getKey(), entry.getValue()));
        }
        return result;
    }

    static Platform remove(Known known, Edit.RemoveBlock edit) {
        Block gone = known.block(edit.block());
        return References.drop(
                known.platform()
                        .withBlocks(
                                known.platform().blocks().stream()
                                        .filter(block -> block != gone)
                                        .toList()),
                edit.block());
    }

    static Platform rename(Known known, Edit.RenameBlock edit) {
        Block old = known.block(edit.block());
        require(Names.isName(edit.name()), "name", Names.refusal(edit.name()));
        String name = Groups.fullName(old.group(), edit.name());
        require(Names.isName(name), "name", Names.refusal(name));
        require(
                name.equals(edit.block()) || known.platform().block(name).isEmpty(),
                "name",
                "there is already a block named %s".formatted(name));
        return References.rename(
                known.change(edit.block(), block -> block.withName(name)), edit.block(), name);
    }

    static Platform setType(Known known, Edit.SetType edit) {
        known.block(edit.block());
        BlockType type =
                known.library()
                        .type(edit.type())
                        .orElseThrow(
                                () ->
                                        new RejectedEdit(
                                                "type",
                                                "the library has no block type %s"
                                                        .formatted(edit.type())));
        return known.change(edit.block(), block -> Upgrade.to(block, type));
    }

    static Platform setParameter(Known known, Edit.SetParameter edit) {
        BlockType type = known.type(edit.block());
        ParameterType parameter =
                type.parameter(edit.parameter())
                        .orElseThrow(
                                () ->
                                        new RejectedEdit(
                                                "parameter",
                                                "%s has no parameter %s; it has %s"
                                                        .formatted(
                                                                type.title(),
                                                                edit.parameter(),
                                                                Known.names(
                                                                        type.parameters(),
                                                                        ParameterType::name))));
        String value = edit.value() == null ? null : ParameterText.check(parameter, edit.value());
        return known.change(edit.block(), block -> block.withParameter(edit.parameter(), value));
    }
}
