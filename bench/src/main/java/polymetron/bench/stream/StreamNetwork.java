package polymetron.bench.stream;

import java.util.ArrayList;
import java.util.Collections;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import polymetron.bench.clock.ClockRatio;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.InterfaceRef;
import polymetron.elaborate.SizedStream;
import polymetron.elaborate.StreamLink;

/**
 * The streams of a platform. Every element does at each edge of its clock what its hardware does, so that words, marks and waiting
 * are the same cycle by cycle; edges at which nothing can happen are left out. A clock without anything under way costs nothing.
 */
public final class StreamNetwork {
    private final Map<String, StreamClock> clocks = new LinkedHashMap<>();
    private final List<StreamClock> all = new ArrayList<>();
    private final Map<InterfaceRef, SourcePort> sources = new LinkedHashMap<>();
    private long next;

    /**
     * @param withRegisters elements that are blocks with registers, by the names of those
     * @param processorHz clock in which the bench counts time
     */
    public StreamNetwork(
            ElaboratedPlatform platform,
            Map<String, ? extends StreamElement> withRegisters,
            long processorHz) {
        Map<InterfaceRef, SinkPort> sinks = new HashMap<>();
        Map<InterfaceRef, SourcePort> sources = new LinkedHashMap<>();
        Map<InterfaceRef, StreamClock> clockOf = new HashMap<>();
        for (ElaboratedBlock block : platform.blocks()) {
            List<StreamElement> elements =
                    withRegisters.containsKey(block.name())
                            ? List.of(withRegisters.get(block.name()))
                            : StreamElements.of(block);
            for (StreamElement element : elements) {
                StreamClock clock = clock(platform, block, element, processorHz);
                clock.add(element);
                element.sinks()
                        .forEach(
                                (name, port) ->
                                        sinks.put(new InterfaceRef(block.name(), name), port));
                element.sources()
                        .forEach(
                                (name, port) -> {
                                    InterfaceRef ref = new InterfaceRef(block.name(), name);
                                    sources.put(ref, port);
                                    clockOf.put(ref, clock);
                                });
            }
        }
        Map<InterfaceRef, SinkPort> linked = new HashMap<>();
        for (StreamLink link : platform.streams()) {
            if (link.sink() != null && sinks.containsKey(link.sinkRef())) {
                linked.put(link.ref(), sinks.get(link.sinkRef()));
            }
        }
        this.sources.putAll(sources);
        sources.forEach((ref, port) -> clockOf.get(ref).connect(port, linked.get(ref)));
        all.addAll(clocks.values());
        next = StreamElement.FOREVER;
    }

    /** An element is in the clock of its streams. */
    private StreamClock clock(
            ElaboratedPlatform platform,
            ElaboratedBlock block,
            StreamElement element,
            long processorHz) {
        String input = null;
        for (SizedStream stream : block.shape().streams()) {
            if (element.sinks().containsKey(stream.name())
                    || element.sources().containsKey(stream.name())) {
                input = stream.type().clock();
            }
        }
        String port = input == null ? block.type().clocks().getFirst().name() : input;
        return clocks.computeIfAbsent(
                String.valueOf(block.block().domains().get(port)),
                domain ->
                        new StreamClock(
                                ClockRatio.of(platform.frequencyHz(block, port), processorHz)));
    }

    /** Sources whose words can be kept. */
    public Set<InterfaceRef> sources() {
        return Collections.unmodifiableSet(sources.keySet());
    }

    /** Keeps the words of a source from now on; null ends that. */
    public void tap(InterfaceRef source, StreamTap tap) {
        all.forEach(clock -> clock.tap(sources.get(source), tap));
    }

    /** Back to power-up. */
    public void reset() {
        all.forEach(StreamClock::reset);
        look();
    }

    /** What is in some clock domains begins again while time goes on. */
    public void restart(Set<String> domains) {
        clocks.forEach(
                (domain, clock) -> {
                    if (domains.contains(domain)) {
                        clock.elements().forEach(StreamElement::resetStream);
                    }
                });
        look();
    }

    /** Something outside of it has changed what may happen next: software has written a register. */
    public void look() {
        next = StreamElement.FOREVER;
        for (StreamClock clock : all) {
            next = Math.min(next, clock.next());
        }
    }

    /** The processor's cycle at which something happens next. */
    public long next() {
        return next;
    }

    /** Does everything that happens until a cycle of the processor. */
    public void advance(long cycle) {
        while (next <= cycle) {
            long at = next;
            for (StreamClock clock : all) {
                clock.skipTo(at - 1);
                if (clock.next() <= at) {
                    clock.edge();
                }
            }
            look();
        }
        for (StreamClock clock : all) {
            clock.skipTo(cycle);
        }
    }
}
