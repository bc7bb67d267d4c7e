package polymetron.bench.stream;

/** Two words between what comes in and what goes out, as {@code polymetron_stream_slice}. */
public final class Slice {
    private StreamWord older;
    private StreamWord newer;
    private int count;

    /** The word that waits; null for none. */
    public StreamWord head() {
        return count == 0 ? null : older;
    }

    /**
     * An edge: a word may come, and the one that waits may go.
     *
     * @param arriving null for none
     */
    public void edge(StreamWord arriving, boolean goes) {
        if (goes && count > 0) {
            older = newer;
            count--;
        }
        if (arriving != null) {
            if (count == 0) {
                older = arriving;
            } else {
                newer = arriving;
            }
            count++;
        }
    }

    public boolean isReady() {
        return count < 2;
    }

    public void clear() {
        count = 0;
    }
}
