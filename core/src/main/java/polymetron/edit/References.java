package polymetron.edit;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import polymetron.platform.Attachment;
import polymetron.platform.Block;
import polymetron.platform.ClockDomain;
import polymetron.platform.InterruptWire;
import polymetron.platform.Platform;
import polymetron.platform.StreamWire;

/** What names a block elsewhere in the document follows when the block gets another name, or goes. */
final class References {
    private References() {}

    /** Everything that named a block names it anew; clocks and resets that it made stay named, and are missed. */
    static Platform drop(Platform platform, String name) {
        return follow(platform, name, null);
    }

    static Platform rename(Platform platform, String from, String to) {
        Platform renamed = follow(platform, from, to);
        List<ClockDomain> domains =
                renamed.domains().stream()
                        .map(
                                domain ->
                                        new ClockDomain(
                                                domain.name(),
                                                moved(domain.clock(), from, to),
                                                moved(domain.reset(), from, to),
                                                domain.wantedHz()))
                        .toList();
        return domains.equals(platform.domains()) ? renamed : renamed.withDomains(domains);
    }

    private static String moved(String ref, String from, String to) {
        return ref != null && ref.startsWith(from + ".") ? to + ref.substring(from.length()) : ref;
    }

    private static Platform follow(Platform platform, String from, String to) {
        return platform.withBlocks(
                platform.blocks().stream().map(block -> follow(block, from, to)).toList());
    }

    private static Block follow(Block block, String from, String to) {
        Block result = block;
        for (Map.Entry<String, InterruptWire> entry : block.interrupts().entrySet()) {
            InterruptWire wire = entry.getValue();
            if (wire.block().equals(from)) {
                result =
                        result.withInterrupt(
                                entry.getKey(),
                                to == null
                                        ? null
                                        : new InterruptWire(
                                                to, wire.sink(), wire.input(), wire.priority()));
            }
        }
        for (Map.Entry<String, StreamWire> entry : block.streams().entrySet()) {
            if (entry.getValue().block().equals(from)) {
                result =
                        result.withStream(
                                entry.getKey(),
                                to == null ? null : new StreamWire(to, entry.getValue().sink()));
            }
        }
        for (Map.Entry<String, Attachment> entry : block.attachments().entrySet()) {
            List<String> hidden = new ArrayList<>();
            for (String ref : entry.getValue().hidden()) {
                if (!ref.startsWith(from + ".")) {
                    hidden.add(ref);
                } else if (to != null) {
                    hidden.add(moved(ref, from, to));
                }
            }
            if (!hidden.equals(entry.getValue().hidden())) {
                result = result.withAttachment(entry.getKey(), entry.getValue().hiding(hidden));
            }
        }
        return result;
    }
}
