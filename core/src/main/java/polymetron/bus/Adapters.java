package polymetron.bus;

import java.util.ArrayList;
import java.util.List;

/**
 * Finds the adapters that an interface needs on a bus. The costs are estimates of ours, from the structure of each
 * adapter; they will be replaced by counts of the generated hardware.
 */
public final class Adapters {
    /** Two flip-flops for each handshake signal, there and back, and one cycle to use it. */
    private static final int CROSSING_CYCLES = 6;

    private Adapters() {}

    /**
     * One side of an attachment.
     *
     * @param protocols what it speaks, most wanted first
     * @param dataWidth bits of a transfer
     * @param domain clock domain; null when it is not known yet
     */
    public record Side(List<Protocol> protocols, int dataWidth, String domain) {}

    /** Whether an interface can be on a bus of that protocol at all. */
    public static boolean canJoin(List<Protocol> protocols, Protocol bus) {
        return protocols.contains(bus) || !protocols.isEmpty();
    }

    /** The adapters between an interface and a bus, from the interface on; empty when they match. */
    public static List<Adapter> between(Side form, Side bus) {
        List<Adapter> adapters = new ArrayList<>();
        Protocol spoken = bus.protocols().getFirst();
        if (!form.protocols().contains(spoken) && !form.protocols().isEmpty()) {
            adapters.add(protocol(form.protocols().getFirst(), spoken));
        }
        if (form.dataWidth() != bus.dataWidth() && form.dataWidth() > 0) {
            adapters.add(width(form.dataWidth(), bus.dataWidth()));
        }
        if (form.domain() != null && bus.domain() != null && !form.domain().equals(bus.domain())) {
            int bits = Math.min(form.dataWidth(), bus.dataWidth());
            adapters.add(
                    new Adapter(
                            Adapter.Sort.CLOCK,
                            form.domain(),
                            bus.domain(),
                            CROSSING_CYCLES,
                            60,
                            80 + 2 * bits));
        }
        return List.copyOf(adapters);
    }

    /** Both ends of a protocol adapter meet in a plain request and answer, so its cost is the sum of its ends. */
    private static Adapter protocol(Protocol from, Protocol to) {
        int cycles = 0;
        int lookupTables = 0;
        int flipFlops = 0;
        for (Protocol end : List.of(from, to)) {
            cycles += end.adapterCycles;
            lookupTables += end.adapterLookupTables;
            flipFlops += end.adapterFlipFlops;
        }
        return new Adapter(
                Adapter.Sort.PROTOCOL, from.title(), to.title(), cycles, lookupTables, flipFlops);
    }

    /** A wide access on a narrow side takes one transfer for each part. */
    private static Adapter width(int from, int to) {
        int ratio = Math.max(from, to) / Math.min(from, to);
        return new Adapter(
                Adapter.Sort.WIDTH,
                from + " bit",
                to + " bit",
                from > to ? ratio - 1 : 0,
                2 * Math.max(from, to),
                from > to ? from : 0);
    }
}
