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
     * @param addressBits address lines
     * @param domain clock domain; null when it is not known yet
     */
    public record Side(List<Protocol> protocols, int dataWidth, int addressBits, String domain) {}

    /**
     * What an interface speaks itself where it is on a bus: the protocol of the bus if it can, or if it leaves it open.
     *
     * @param protocols what it speaks, most wanted first; empty for any
     */
    public static Protocol spoken(List<Protocol> protocols, Protocol bus) {
        return protocols.isEmpty() || protocols.contains(bus) ? bus : protocols.getFirst();
    }

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
        Protocol own = spoken(form.protocols(), spoken);
        boolean differs = own != spoken;
        Protocol upper = isTarget ? spoken : own;
        int endCycles = upper.readCycles() - 1;
        BusEndSize end = BusEndSize.target(upper, form.addressBits());
        BusEndSize more = BusEndSize.beyondLite(upper, form.addressBits());
        if (differs) {
            BusEndSize far = BusEndSize.initiator(isTarget ? own : spoken);
            adapters.add(
                    new Adapter(
                            Adapter.Sort.PROTOCOL,
                            own.title(),
                            spoken.title(),
                            endCycles,
                            1,
                            end.lookupTables() + far.lookupTables(),
                            end.flipFlops() + far.flipFlops()));
        }
        if (form.dataWidth() != bus.dataWidth() && form.dataWidth() > 0) {
            adapters.add(
                    adapters.isEmpty()
                            ? width(form, bus, isTarget).withEnd(endCycles, more)
                            : width(form, bus, isTarget));
        }
        if (form.domain() != null && bus.domain() != null && !form.domain().equals(bus.domain())) {
            Adapter clock = clock(form, bus);
            BusEndSize lite = BusEndSize.target(Protocol.AXI4_LITE, form.addressBits());
            adapters.add(
                    adapters.isEmpty()
                            ? clock.withEnd(endCycles, lite).withEnd(endCycles, more)
                            : clock);
        }
        return List.copyOf(adapters);
    }

    private static Adapter clock(Side form, Side bus) {
        int bits = Math.min(form.dataWidth(), bus.dataWidth());
        return new Adapter(
                Adapter.Sort.CLOCK, form.domain(), bus.domain(), 0, 1, 21, 37 + 2 * bits);
    }

    /** A wide access on a narrow side takes one access for each part. */
    private static Adapter width(Side form, Side bus, boolean isTarget) {
        int most = Math.max(form.dataWidth(), bus.dataWidth());
        boolean narrows =
                isTarget ? bus.dataWidth() > form.dataWidth() : form.dataWidth() > bus.dataWidth();
        int ratio = most / Math.min(form.dataWidth(), bus.dataWidth());
        return new Adapter(
                Adapter.Sort.WIDTH,
                form.dataWidth() + " bit",
                bus.dataWidth() + " bit",
                0,
                narrows ? ratio : 1,
                2 * most,
                narrows ? most : 0);
    }
}
