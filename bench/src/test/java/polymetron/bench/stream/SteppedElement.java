package polymetron.bench.stream;

/** An element with one sink and one source, edge by edge: what is offered to it, and whether its source is taken from, is said. */
public final class SteppedElement {
    private final SinkPort sink;
    private final SourcePort source;
    private final SourcePort before = new SourcePort();
    private final SinkPort behind = new SinkPort();
    private final StreamClock clock = new StreamClock(polymetron.bench.clock.ClockRatio.SAME);

    public SteppedElement(StreamElement element) {
        sink = element.sinks().values().iterator().next();
        source = element.sources().values().iterator().next();
        clock.add(element);
        clock.connect(before, sink);
        clock.connect(source, behind);
    }

    /** Whether it takes a word that is offered now. */
    public boolean isReady() {
        return sink.isReady();
    }

    /** What it offers now; null for nothing. */
    public StreamWord offered() {
        return source.offered();
    }

    /**
     * The next edge.
     *
     * @param word null for none
     */
    public void edge(StreamWord word, boolean takes) {
        before.offer(word);
        behind.setReady(takes);
        clock.edge();
    }
}
