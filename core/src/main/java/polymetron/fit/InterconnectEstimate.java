package polymetron.fit;

import polymetron.elaborate.ElaboratedBus;
import polymetron.elaborate.SizedInterface;

/**
 * Logic of a bus from its structure, for lookup tables of six inputs.
 *
 * <p>Each target needs its select, one lookup table for three address bits that are compared; what comes back to each
 * initiator is chosen among the targets, one lookup table for four of them a bit; what goes to a target is chosen among
 * the initiators in the same way, and an arbiter keeps a state. Registers hold one transfer each way for each
 * initiator. Common practice, no source: synthesis will differ by what it shares.
 */
final class InterconnectEstimate {
    private static final int CONTROL_BITS = 8;

    private final ElaboratedBus bus;

    InterconnectEstimate(ElaboratedBus bus) {
        this.bus = bus;
    }

    private static long choosing(long of, long bits) {
        return of <= 1 ? 0 : (of + 2) / 3 * bits;
    }

    long lookupTables() {
        long targets = bus.placed().size();
        long initiators = bus.initiators().size();
        long data = bus.bus().dataWidth();
        long address = bus.bus().addressWidth();
        long selects =
                bus.placed().stream()
                        .mapToLong(target -> selectBits(target.form(), address))
                        .map(bits -> (bits + 2) / 3)
                        .sum();
        return selects
                + initiators * choosing(targets, data)
                + (targets == 0 ? 0 : choosing(initiators, data + address + CONTROL_BITS))
                + (initiators > 1 ? 4 * initiators : 0);
    }

    long flipFlops() {
        long initiators = bus.initiators().size();
        return bus.placed().isEmpty()
                ? 0
                : initiators * (2L * bus.bus().dataWidth() + bus.bus().addressWidth());
    }

    private static long selectBits(SizedInterface form, long address) {
        long size = Math.max(1, form.sizeBytes());
        int inside = Long.SIZE - Long.numberOfLeadingZeros(size - 1);
        return Math.max(0, address - inside);
    }
}
