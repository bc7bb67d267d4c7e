package polymetron.paste;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import polymetron.edit.Edit;
import polymetron.edit.Groups;
import polymetron.platform.Attachment;
import polymetron.platform.Block;
import polymetron.platform.InterruptWire;
import polymetron.platform.Names;
import polymetron.platform.Platform;
import polymetron.platform.StreamWire;

/**
 * The edits that put copied blocks into a platform: with their parameters, under free names, in the clock domains and
 * on the buses of the same name where there are such, and with the interrupts and streams between them. Addresses, other
 * interrupts and board parts are left to the wiring plan, because there is one of each.
 */
public final class PasteEdits {
    private PasteEdits() {}

    public static List<Edit> of(Platform platform, BlocksText copied) {
        Map<String, String> groups = groups(platform, copied);
        Map<String, String> names = names(platform, copied, groups);
        List<Edit> edits = new ArrayList<>();
        for (Block block : copied.blocks()) {
            String name = names.get(block.name());
            edits.add(new Edit.AddBlock(name, block.type(), block.parameters()));
            block.domains()
                    .forEach(
                            (port, domain) -> {
                                if (platform.domain(domain).isPresent()) {
                                    edits.add(new Edit.SetDomain(name, port, domain));
                                }
                            });
            for (Map.Entry<String, Attachment> entry : block.attachments().entrySet()) {
                if (platform.bus(entry.getValue().bus()).isPresent()) {
                    edits.add(
                            new Edit.Attach(
                                    name, entry.getKey(), entry.getValue().bus(), null, null));
                }
            }
        }
        for (Block block : copied.blocks()) {
            if (block.group() != null) {
                edits.add(
                        new Edit.Group(
                                groups.get(block.group()), List.of(names.get(block.name()))));
            }
            for (Map.Entry<String, StreamWire> entry : block.streams().entrySet()) {
                StreamWire wire = entry.getValue();
                if (names.containsKey(wire.block())) {
                    edits.add(
                            new Edit.ConnectStream(
                                    names.get(block.name()),
                                    entry.getKey(),
                                    names.get(wire.block()),
                                    wire.sink()));
                }
            }
            for (Map.Entry<String, InterruptWire> entry : block.interrupts().entrySet()) {
                InterruptWire wire = entry.getValue();
                if (names.containsKey(wire.block())) {
                    edits.add(
                            new Edit.ConnectInterrupt(
                                    names.get(block.name()),
                                    entry.getKey(),
                                    names.get(wire.block()),
                                    wire.sink(),
                                    wire.input()));
                }
            }
        }
        return edits;
    }

    /** A group that is there already gets another name, so that both stay apart. */
    private static Map<String, String> groups(Platform platform, BlocksText copied) {
        List<String> taken =
                new ArrayList<>(
                        platform.blocks().stream()
                                .map(Block::group)
                                .filter(Objects::nonNull)
                                .toList());
        Map<String, String> groups = new LinkedHashMap<>();
        for (Block block : copied.blocks()) {
            if (block.group() != null && !groups.containsKey(block.group())) {
                String name = Names.free(block.group(), taken);
                taken.add(name);
                groups.put(block.group(), name);
            }
        }
        return groups;
    }

    private static Map<String, String> names(
            Platform platform, BlocksText copied, Map<String, String> groups) {
        List<String> taken = new ArrayList<>(platform.blocks().stream().map(Block::name).toList());
        Map<String, String> names = new LinkedHashMap<>();
        for (Block block : copied.blocks()) {
            String wished =
                    block.group() == null
                            ? block.name()
                            : groups.get(block.group()) + "_" + Groups.localName(block);
            String name = Names.free(wished, taken);
            taken.add(name);
            names.put(block.name(), name);
        }
        return names;
    }
}
