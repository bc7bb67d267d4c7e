package polymetron.stream;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.Deque;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.InterfaceRef;
import polymetron.elaborate.SizedStream;
import polymetron.elaborate.StreamLink;

/** The streams of a platform: which source feeds which sink, and what is open. Ends are in the order of their names. */
public final class StreamNet {
    private final ElaboratedPlatform platform;
    private final List<StreamEnd> sources = new ArrayList<>();
    private final List<StreamEnd> sinks = new ArrayList<>();
    private final Map<InterfaceRef, StreamLink> links = new HashMap<>();
    private final Map<InterfaceRef, StreamLink> feeders = new HashMap<>();
    private final Map<String, List<StreamEnd>> sourcesByBlock = new HashMap<>();
    private final Set<InterfaceRef> held = new HashSet<>();
    private final Map<String, List<String>> onward = new HashMap<>();

    public StreamNet(ElaboratedPlatform platform) {
        this.platform = platform;
        for (ElaboratedBlock block : platform.blocks()) {
            for (SizedStream form : block.shape().streams()) {
                (form.isSource() ? sources : sinks).add(new StreamEnd(block, form));
            }
        }
        sources.sort(Comparator.comparing(StreamEnd::ref));
        sinks.sort(Comparator.comparing(StreamEnd::ref));
        for (StreamEnd source : sources) {
            sourcesByBlock
                    .computeIfAbsent(source.block().name(), name -> new ArrayList<>())
                    .add(source);
        }
        // A wire from a source that is not there any more holds its sink all the same.
        for (ElaboratedBlock block : platform.blocks()) {
            block.block().streams().values().stream()
                    .map(wire -> new InterfaceRef(wire.block(), wire.sink()))
                    .forEach(held::add);
        }
        for (StreamLink link : platform.streams()) {
            links.put(link.ref(), link);
            if (link.sink() != null) {
                onward.computeIfAbsent(link.block().name(), name -> new ArrayList<>())
                        .add(link.sinkBlock().name());
                feeders.putIfAbsent(link.sinkRef(), link);
            }
        }
    }

    public ElaboratedPlatform platform() {
        return platform;
    }

    public List<StreamEnd> sources() {
        return sources;
    }

    /** The sources of one block. */
    public List<StreamEnd> sourcesOf(String block) {
        return sourcesByBlock.getOrDefault(block, List.of());
    }

    public List<StreamEnd> sinks() {
        return sinks;
    }

    public Optional<StreamEnd> source(InterfaceRef ref) {
        return sources.stream().filter(end -> end.ref().equals(ref)).findFirst();
    }

    public Optional<StreamEnd> sink(InterfaceRef ref) {
        return sinks.stream().filter(end -> end.ref().equals(ref)).findFirst();
    }

    /** The stream of a source. */
    public StreamLink link(StreamEnd source) {
        return links.get(source.ref());
    }

    /** The stream that feeds a sink; empty when none does. */
    public Optional<StreamLink> feeder(InterfaceRef sink) {
        return Optional.ofNullable(feeders.get(sink));
    }

    public List<StreamEnd> openSources() {
        return sources.stream().filter(end -> link(end).isOpen()).toList();
    }

    public List<StreamEnd> openSinks() {
        return sinks.stream().filter(end -> !held.contains(end.ref())).toList();
    }

    /** Whether what goes into a sink comes back to the source, so that joining both makes a circle. */
    public boolean leadsBack(StreamEnd source, StreamEnd sink) {
        Set<String> passed = new HashSet<>();
        Deque<String> next = new ArrayDeque<>(List.of(sink.block().name()));
        while (!next.isEmpty()) {
            String block = next.pop();
            if (block.equals(source.block().name())) {
                return true;
            }
            if (passed.add(block)) {
                onward.getOrDefault(block, List.of()).forEach(next::push);
            }
        }
        return false;
    }
}
