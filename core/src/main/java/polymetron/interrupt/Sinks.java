package polymetron.interrupt;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.OptionalInt;
import java.util.TreeSet;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.InterfaceRef;
import polymetron.elaborate.InterruptLink;
import polymetron.elaborate.SizedInterrupt;

/** The interrupt inputs of a platform and which of them are taken. */
public final class Sinks {
    private final Map<String, List<Sink>> sinks = new HashMap<>();
    private final Map<InterfaceRef, TreeSet<Integer>> taken = new HashMap<>();

    /** A port with interrupt inputs. */
    public record Sink(ElaboratedBlock block, SizedInterrupt port) {
        public InterfaceRef ref() {
            return new InterfaceRef(block.name(), port.name());
        }
    }

    public Sinks(ElaboratedPlatform platform) {
        for (ElaboratedBlock block : platform.blocks()) {
            for (SizedInterrupt port : block.shape().interrupts()) {
                if (!port.isSource()) {
                    sinks.computeIfAbsent(port.type().line(), line -> new ArrayList<>())
                            .add(new Sink(block, port));
                }
            }
        }
        for (InterruptLink link : platform.interrupts()) {
            if (link.isConnected()) {
                taken.computeIfAbsent(
                                new InterfaceRef(link.wire().block(), link.wire().sink()),
                                ref -> new TreeSet<>())
                        .add(link.wire().input());
            }
        }
    }

    /** The ports that take lines of a sort. */
    public List<Sink> forLine(String line) {
        return sinks.getOrDefault(line, List.of());
    }

    /** The lowest input that nothing drives. */
    public OptionalInt freeInput(Sink sink) {
        TreeSet<Integer> used = taken.getOrDefault(sink.ref(), new TreeSet<>());
        for (int input = sink.port().first();
                input < sink.port().first() + sink.port().count();
                input++) {
            if (!used.contains(input)) {
                return OptionalInt.of(input);
            }
        }
        return OptionalInt.empty();
    }
}
