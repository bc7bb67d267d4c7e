package polymetron.output.hardware;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.InterfaceRef;
import polymetron.elaborate.SizedStream;
import polymetron.elaborate.StreamLink;
import polymetron.verilog.Expression;
import polymetron.verilog.Module;

/**
 * The nets of streams (AXI4-Stream, Arm IHI 0051, 2.2: TDATA, TVALID, TREADY, TLAST, TKEEP) between blocks. A source without a
 * mark that its sink reads leaves the reset value of the standard (IHI 0051, 3.1.1): no end of a packet, every byte counts. A
 * source that is not connected is always accepted, so that it holds nothing up.
 */
final class StreamNets {
    static final String DATA = "tdata";
    static final String VALID = "tvalid";
    static final String READY = "tready";
    static final String LAST = "tlast";
    static final String KEEP = "tkeep";

    static final List<String> SIGNALS = List.of(DATA, VALID, READY, LAST, KEEP);

    private final Map<String, Module> parts;
    private final Map<InterfaceRef, StreamLink> bySource = new LinkedHashMap<>();
    private final Map<InterfaceRef, StreamLink> bySink = new LinkedHashMap<>();

    /**
     * @param parts modules of blocks by the names of those
     */
    StreamNets(ElaboratedPlatform platform, Map<String, Module> parts) {
        this.parts = parts;
        for (StreamLink link : platform.streams()) {
            if (link.sink() != null) {
                bySource.put(link.ref(), link);
                bySink.put(link.sinkRef(), link);
            }
        }
    }

    /** Whether a source drives a signal of a stream, or else its sink. */
    static boolean isOfSource(String signal) {
        return !signal.equals(READY);
    }

    static int bits(SizedStream stream, String signal) {
        return switch (signal) {
            case DATA -> stream.dataWidth();
            case KEEP -> stream.dataWidth() / 8;
            default -> 1;
        };
    }

    /** A port of a stream. */
    private record Port(SizedStream stream, String signal) {}

    private static Port port(ElaboratedBlock block, String name) {
        int last = name.lastIndexOf('_');
        String signal = name.substring(last + 1);
        if (last < 0 || !SIGNALS.contains(signal)) {
            return null;
        }
        for (SizedStream stream : block.shape().streams()) {
            if (stream.name().equals(name.substring(0, last))) {
                return new Port(stream, signal);
            }
        }
        return null;
    }

    /**
     * What an input of a block's module reads; null where it is no signal of a stream.
     *
     * @param nets what makes the read of a net by its name and width
     */
    Expression input(ElaboratedBlock block, String name, NetReader nets) {
        Port port = port(block, name);
        if (port == null) {
            return null;
        }
        InterfaceRef ref = new InterfaceRef(block.name(), port.stream().name());
        int bits = bits(port.stream(), port.signal());
        StreamLink link = (port.stream().isSource() ? bySource : bySink).get(ref);
        if (link != null) {
            InterfaceRef other = port.stream().isSource() ? link.sinkRef() : link.ref();
            String driver = other.name() + "_" + port.signal();
            boolean isDriven =
                    parts.get(other.block()).ports().stream()
                            .anyMatch(each -> each.net().name().equals(driver));
            if (isDriven) {
                return nets.read(other.block() + "_" + driver, bits);
            }
        }
        boolean isOne = !port.signal().equals(LAST) && !port.signal().equals(DATA);
        return Expression.constant(
                bits, isOne && (link != null || port.stream().isSource()) ? -1L : 0);
    }

    /** Whether nothing reads a signal that a block drives. */
    boolean isUnread(ElaboratedBlock block, String name) {
        Port port = port(block, name);
        if (port == null) {
            return false;
        }
        InterfaceRef ref = new InterfaceRef(block.name(), port.stream().name());
        StreamLink link = (port.stream().isSource() ? bySource : bySink).get(ref);
        if (link == null) {
            return true;
        }
        InterfaceRef other = port.stream().isSource() ? link.sinkRef() : link.ref();
        String reader = other.name() + "_" + port.signal();
        return parts.get(other.block()).ports().stream()
                .noneMatch(each -> each.net().name().equals(reader));
    }

    /** Makes the read of a net. */
    @FunctionalInterface
    interface NetReader {
        Expression read(String name, int bits);
    }
}
