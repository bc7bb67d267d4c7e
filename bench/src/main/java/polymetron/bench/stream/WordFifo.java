package polymetron.bench.stream;

import java.util.ArrayDeque;
import java.util.Deque;

/**
 * Words in a memory, as {@code polymetron_stream_fifo}: one that comes can be read in the next cycle, is there in the one after, and
 * waits with up to three others for its way out.
 */
public final class WordFifo {
    private static final int FEWEST = 4;
    private static final int WAITING = 4;

    private final int room;
    private final Deque<StreamWord> unread = new ArrayDeque<>();
    private final Deque<StreamWord> waiting = new ArrayDeque<>();
    private StreamWord reading;

    /**
     * @param depth words that there is room for
     */
    public WordFifo(int depth) {
        room = Math.max(FEWEST, depth);
    }

    /** The word that can go; null for none. */
    public StreamWord head() {
        return waiting.peek();
    }

    public boolean isReady() {
        return room() > 0;
    }

    /** Words that have come and not gone. */
    public int held() {
        return unread.size() + waiting.size() + (reading == null ? 0 : 1);
    }

    /** Words that there is room for. */
    public int room() {
        return room - held();
    }

    /**
     * An edge: a word may come, and the one that waits may go.
     *
     * @param arriving null for none
     */
    public void edge(StreamWord arriving, boolean goes) {
        boolean reads = !unread.isEmpty() && waiting.size() + (reading == null ? 0 : 1) < WAITING;
        if (goes) {
            waiting.poll();
        }
        if (reading != null) {
            waiting.add(reading);
        }
        reading = reads ? unread.remove() : null;
        if (arriving != null) {
            unread.add(arriving);
        }
    }

    /** Whether words only wait for what takes them. */
    public boolean isStill() {
        return reading == null && (unread.isEmpty() || waiting.size() >= WAITING);
    }

    public void clear() {
        unread.clear();
        waiting.clear();
        reading = null;
    }
}
