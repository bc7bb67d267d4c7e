package polymetron.paste;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import polymetron.edit.Edit;
import polymetron.platform.Attachment;
import polymetron.platform.Block;
import polymetron.platform.InterruptWire;
import polymetron.platform.Names;
import polymetron.platform.Platform;

/**
 * The edits that put copied blocks into a platform: with their parameters, under free names, in the clock domains and
 * on the buses of the same name where there are such, and with the interrupts between them. Addresses, other
 * interrupts and board parts are left to the wiring plan, because there is one of each.
 */
public final class PasteEdits {
    private PasteEdits() {}

    public static List<Edit> of(Platform platform, BlocksText copied) {
        Map<String, String> names = names(platform, copied);
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

    private static Map<String, String> names(Platform platform, BlocksText copied) {
        List<String> taken = new ArrayList<>(platform.blocks().stream().map(Block::name).toList());
        Map<String, String> names = new LinkedHashMap<>();
        for (Block block : copied.blocks()) {
            String name = Names.free(block.name(), taken);
            taken.add(name);
            names.put(block.name(), name);
        }
        return names;
    }
}
