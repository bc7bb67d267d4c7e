package polymetron.bench.stream;

/** The end of a stream that words go to: whether it takes one between two edges of the clock, and what came at the edge. */
public final class SinkPort {
    boolean ready;

    /** The word that came at this edge; null for none. */
    StreamWord arriving;

    /** Takes a word from the next cycle on, or does not. */
    public void setReady(boolean takes) {
        ready = takes;
    }

    public StreamWord arriving() {
        return arriving;
    }

    public boolean isReady() {
        return ready;
    }
}
