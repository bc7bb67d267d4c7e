package polymetron.fit;

import polymetron.elaborate.ElaboratedBus;
import polymetron.elaborate.SizedInterface;

/**
 * Logic of a bus from its structure, for lookup tables of six inputs without carry chains.
 *
 * <p>Each target needs its select, one lookup table for three address bits that are compared, of which a third is shared with
 * others; the answer is chosen among the
 * targets, one lookup table for three of them a bit; addresses and data are chosen among the initiators in the same way, and
 * an arbiter keeps a state. Where reads and writes have channels of their own, selects, addresses and arbiters are there twice.
 * Fitted to what a general-purpose synthesiser makes of the generated buses.
 */
final class InterconnectEstimate {
    /** Logic of the handshakes, and what it is more for each target and each initiator. */
    private static final int HANDSHAKES = 24;

    private static final int FOR_EACH = 4;
    private static final int ARBITER = 12;
    private static final int ANSWER_BITS = 4;

    private final ElaboratedBus bus;

    InterconnectEstimate(ElaboratedBus bus) {
        this.bus = bus;
    }

    private static long choosing(long of, long bits) {
        return of <= 1 ? 0 : (of + 2) / 3 * bits;
    }

    private boolean hasOneChannel() {
        return bus.bus().protocol().hasOneInitiator();
    }

    long lookupTables() {
        long targets = bus.placed().size();
        long initiators = bus.initiators().size();
        if (initiators == 0) {
            return 0;
        }
        long data = bus.bus().dataWidth();
        long address = bus.bus().addressWidth();
        int channels = hasOneChannel() ? 1 : 2;
        long selects =
                bus.placed().stream()
                        .mapToLong(target -> selectBits(target.form(), address))
                        .map(bits -> (bits + 2) / 3)
                        .sum();
        return channels * selects * 2 / 3
                + choosing(targets, data + ANSWER_BITS)
                + choosing(initiators, channels * address + data + data / 8)
                + (channels - 1) * HANDSHAKES
                + FOR_EACH * targets
                + (initiators > 1 ? channels * ARBITER * initiators : 0);
    }

    /** For each channel which target answers, and how far it is; whose turn it is. */
    long flipFlops() {
        long initiators = bus.initiators().size();
        return initiators == 0 || hasOneChannel()
                ? 0
                : 2L * bus.placed().size() + 5 + (initiators > 1 ? 4 * initiators : 0);
    }

    private static long selectBits(SizedInterface form, long address) {
        long size = Math.max(1, form.sizeBytes());
        int inside = Long.SIZE - Long.numberOfLeadingZeros(size - 1);
        return Math.max(0, address - inside);
    }
}
