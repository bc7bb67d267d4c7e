package polymetron.output.hardware;

import java.util.List;
import polymetron.bus.Adapters;
import polymetron.bus.Protocol;
import polymetron.elaborate.Bridge;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.ElaboratedBus;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.SizedInterface;
import polymetron.platform.Attachment;

/**
 * How a bus interface looks in hardware.
 *
 * @param readsOnly whether it has no writes
 */
record Interface(Protocol protocol, int addressBits, int dataBits, boolean readsOnly) {
    /** Fewest address bits, so that a word has an address within its range. */
    private static final int FEWEST_BITS = 4;

    /** An interface of a block as the block has it: on its bus in that bus's protocol where the block speaks it. */
    static Interface of(ElaboratedPlatform platform, ElaboratedBlock block, SizedInterface form) {
        Attachment at = block.block().attachments().get(form.name());
        ElaboratedBus bus = at == null ? null : platform.busIndex().get(at.bus());
        List<Protocol> spoken = form.type().protocols();
        Protocol protocol =
                bus != null
                        ? Adapters.spoken(spoken, bus.bus().protocol())
                        : spoken.isEmpty() ? Protocol.AXI4_LITE : spoken.getFirst();
        return new Interface(
                protocol, addressBits(bus, block, form), form.dataWidth(), form.onlyFetches());
    }

    /** The same interface as its bus has it. */
    Interface on(ElaboratedBus bus) {
        return new Interface(bus.bus().protocol(), addressBits, bus.bus().dataWidth(), readsOnly);
    }

    List<Signal> signals() {
        return Signals.of(protocol).stream()
                .filter(signal -> !(readsOnly && signal.isWrite()))
                .toList();
    }

    private static int addressBits(ElaboratedBus bus, ElaboratedBlock block, SizedInterface form) {
        if (form.isTarget()) {
            return Math.max(FEWEST_BITS, bits(form.sizeBytes() - 1));
        }
        if (form.type().addressWidth() != null || bus == null) {
            return form.addressWidth();
        }
        Bridge bridge = block.shape().bridge();
        int needed = bridge == null || bridge.window() == null ? 0 : bits(bridge.window().last());
        return Math.max(bus.bus().addressWidth(), needed);
    }

    private static int bits(long last) {
        return 64 - Long.numberOfLeadingZeros(last);
    }
}
