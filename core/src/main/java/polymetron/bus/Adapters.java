package polymetron.bus;

import java.util.ArrayList;
import java.util.List;

/**
 * Finds the adapters that an interface needs on a bus. The costs are estimates of ours, from the structure of each
 * adapter; they will be replaced by counts of the generated hardware.
 */
public final class Adapters {
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

    /**
     * The adapters between an interface and a bus, from the interface on; empty when they match. The first one adds what
     * the protocol takes over which an access comes to them, but for the cycle in which it is done behind them.
     *
     * @param isTarget whether accesses come from the bus
     */
    public static List<Adapter> between(Side form, Side bus, boolean isTarget) {
        List<Adapter> adapters = new ArrayList<>();
        Protocol spoken = bus.protocols().getFirst();
        boolean differs = !form.protocols().contains(spoken) && !form.protocols().isEmpty();
        Protocol own = differs ? form.protocols().getFirst() : spoken;
        Protocol upper = isTarget ? spoken : own;
        int endCycles = upper.readCycles() - 1;
        if (differs) {
            adapters.add(protocol(own, spoken, endCycles));
        }
        if (form.dataWidth() != bus.dataWidth() && form.dataWidth() > 0) {
            adapters.add(
                    width(
                            form.dataWidth(),
                            bus.dataWidth(),
                            isTarget,
                            adapters.isEmpty() ? endCycles : 0));
        }
        if (form.domain() != null && bus.domain() != null && !form.domain().equals(bus.domain())) {
            int bits = Math.min(form.dataWidth(), bus.dataWidth());
            adapters.add(
                    new Adapter(
                            Adapter.Sort.CLOCK,
                            form.domain(),
                            bus.domain(),
                            adapters.isEmpty() ? endCycles : 0,
                            1,
                            46,
                            76 + 2 * bits));
        }
        return List.copyOf(adapters);
    }

    /** Both ends of a protocol adapter meet in a plain request and answer, so its size is the sum of its ends. */
    private static Adapter protocol(Protocol from, Protocol to, int cycles) {
        int lookupTables = 0;
        int flipFlops = 0;
        for (Protocol end : List.of(from, to)) {
            lookupTables += end.adapterLookupTables;
            flipFlops += end.adapterFlipFlops;
        }
        return new Adapter(
                Adapter.Sort.PROTOCOL,
                from.title(),
                to.title(),
                cycles,
                1,
                lookupTables,
                flipFlops);
    }

    /** A wide access on a narrow side takes one access for each part. */
    private static Adapter width(int form, int bus, boolean isTarget, int cycles) {
        boolean narrows = isTarget ? bus > form : form > bus;
        int ratio = Math.max(form, bus) / Math.min(form, bus);
        return new Adapter(
                Adapter.Sort.WIDTH,
                form + " bit",
                bus + " bit",
                cycles,
                narrows ? ratio : 1,
                2 * Math.max(form, bus),
                narrows ? Math.max(form, bus) : 0);
    }
}
