package polymetron.bench.stream;

/** The end of a stream that words come from: what it offers between two edges of the clock, and whether that went at the edge. */
public final class SourcePort {
    /** The word that it offers; null for none. Once offered it stays until it is taken. */
    StreamWord offered;

    /** Whether the word went to the sink at this edge. */
    boolean taken;

    /** Offers a word from the next cycle on; null for none. */
    public void offer(StreamWord word) {
        offered = word;
    }

    public boolean isTaken() {
        return taken;
    }

    public StreamWord offered() {
        return offered;
    }
}
