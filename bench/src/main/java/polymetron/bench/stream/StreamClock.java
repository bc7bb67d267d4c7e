package polymetron.bench.stream;

import java.util.ArrayList;
import java.util.List;
import polymetron.bench.clock.ClockRatio;

/** The elements of one clock and the streams between them, edge after edge. */
final class StreamClock {
    /** A stream; the sink is null where nothing takes the words: they are gone. */
    private static final class Link {
        private final SourcePort source;
        private final SinkPort sink;

        /** Keeps its words; null for none. */
        private StreamTap tap;

        Link(SourcePort source, SinkPort sink) {
            this.source = source;
            this.sink = sink;
        }

        boolean moves() {
            return source.offered != null && (sink == null || sink.ready);
        }
    }

    private final ClockRatio ratio;
    private final List<StreamElement> elements = new ArrayList<>();
    private final List<Link> links = new ArrayList<>();

    /** Edges of the clock that have been. */
    private long edges;

    StreamClock(ClockRatio ratio) {
        this.ratio = ratio;
    }

    void add(StreamElement element) {
        elements.add(element);
    }

    void connect(SourcePort source, SinkPort sink) {
        links.add(new Link(source, sink));
    }

    /** Keeps the words of a source from now on; null ends that. */
    void tap(SourcePort source, StreamTap tap) {
        for (Link link : links) {
            if (link.source == source) {
                link.tap = tap;
            }
        }
    }

    List<StreamElement> elements() {
        return elements;
    }

    void reset() {
        edges = 0;
        elements.forEach(StreamElement::resetStream);
    }

    /** The processor's cycle of the next edge at which something happens. */
    long next() {
        long quiet = quietFor();
        return quiet == StreamElement.FOREVER
                ? StreamElement.FOREVER
                : ratio.processor(edges + quiet + 1);
    }

    private long quietFor() {
        for (Link link : links) {
            if (link.moves()) {
                return 0;
            }
        }
        long quiet = StreamElement.FOREVER;
        for (StreamElement element : elements) {
            quiet = Math.min(quiet, element.quietFor());
            if (quiet == 0) {
                return 0;
            }
        }
        return quiet;
    }

    /** Lets pass what passes until a cycle of the processor; nothing happens until then. */
    void skipTo(long cycle) {
        long quiet = ratio.own(cycle) - edges;
        if (quiet > 0) {
            elements.forEach(element -> element.skip(quiet));
            edges += quiet;
        }
    }

    /** The next edge. */
    void edge() {
        for (Link link : links) {
            boolean moves = link.moves();
            link.source.taken = moves;
            if (link.sink != null) {
                link.sink.arriving = moves ? link.source.offered : null;
            }
            if (moves && link.tap != null) {
                link.tap.take(link.source.offered);
            }
        }
        for (StreamElement element : elements) {
            element.edge();
        }
        edges++;
    }
}
