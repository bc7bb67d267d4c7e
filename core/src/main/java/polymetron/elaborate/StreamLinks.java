package polymetron.elaborate;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import polymetron.platform.StreamWire;

/**
 * Follows every stream from its source to its sink, and what its words carry back to where they were made. Linear in
 * the number of streams.
 */
final class StreamLinks {
    private final Map<String, ElaboratedBlock> blocks;
    private final Dangling dangling;
    private final Map<InterfaceRef, StreamLink> bySource = new HashMap<>();
    private final Map<InterfaceRef, InterfaceRef> feeders = new HashMap<>();

    private StreamLinks(Map<String, ElaboratedBlock> blocks, Dangling dangling) {
        this.blocks = blocks;
        this.dangling = dangling;
    }

    /**
     * @param dangling told about wires that lead nowhere
     */
    static List<StreamLink> of(Map<String, ElaboratedBlock> blocks, Dangling dangling) {
        return new StreamLinks(blocks, dangling).links();
    }

    private List<StreamLink> links() {
        List<StreamLink> links = new ArrayList<>();
        for (ElaboratedBlock block : blocks.values()) {
            for (SizedStream source : block.shape().streams()) {
                if (source.isSource()) {
                    StreamLink link = link(block, source);
                    links.add(link);
                    bySource.put(link.ref(), link);
                    if (link.sink() != null) {
                        feeders.putIfAbsent(link.sinkRef(), link.ref());
                    }
                }
            }
            block.block()
                    .streams()
                    .keySet()
                    .forEach(
                            name -> {
                                if (block.shape().stream(name)
                                        .filter(SizedStream::isSource)
                                        .isEmpty()) {
                                    dangling.missing(
                                            block.name(),
                                            DanglingReference.Sort.STREAM,
                                            name,
                                            "there is no stream source %s".formatted(name));
                                }
                            });
        }
        return links.stream()
                .map(
                        link ->
                                new StreamLink(
                                        link.block(),
                                        link.source(),
                                        link.wire(),
                                        link.sinkBlock(),
                                        link.sink(),
                                        carried(link, new HashSet<>())))
                .toList();
    }

    private StreamLink link(ElaboratedBlock block, SizedStream source) {
        StreamWire wire = block.block().streams().get(source.name());
        if (wire == null) {
            return new StreamLink(block, source, null, null, null, source.traits());
        }
        ElaboratedBlock sinkBlock = blocks.get(wire.block());
        SizedStream sink =
                sinkBlock == null
                        ? null
                        : sinkBlock.shape().stream(wire.sink())
                                .filter(form -> !form.isSource())
                                .orElse(null);
        if (sink == null) {
            dangling.missing(
                    block.name(),
                    DanglingReference.Sort.STREAM,
                    source.name(),
                    "there is no stream sink %s.%s".formatted(wire.block(), wire.sink()));
            return new StreamLink(block, source, wire, null, null, source.traits());
        }
        return new StreamLink(block, source, wire, sinkBlock, sink, source.traits());
    }

    /** What passes through a block is what came into it; in a loop it is nothing. */
    private StreamTraits carried(StreamLink link, Set<InterfaceRef> passed) {
        String passes = link.source().type().passes();
        if (passes == null) {
            return link.source().traits();
        }
        InterfaceRef feeder = feeders.get(new InterfaceRef(link.block().name(), passes));
        return feeder == null || !passed.add(link.ref())
                ? StreamTraits.NONE
                : carried(bySource.get(feeder), passed);
    }
}
