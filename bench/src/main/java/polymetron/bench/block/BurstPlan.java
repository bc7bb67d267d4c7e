package polymetron.bench.block;

import java.util.ArrayDeque;
import java.util.Deque;
import polymetron.bench.stream.StreamWord;
import polymetron.bench.stream.WordFifo;

/**
 * How many accesses a DMA makes one burst of, as {@code polymetron_dma_channel}: as many words as there is room for or are there, up to
 * the end of their packet, of the buffer, and of the 4 KiB that no burst of AXI4 leaves (Arm IHI 0022, A3.4.1).
 */
final class BurstPlan {
    private static final int PAGE = 4096;

    /** Packets whose length is kept; where more have their end in the FIFO, words go one by one until all those have gone. */
    private static final int MOST_LENGTHS = 8;

    private final int longest;
    private final int bytes;
    private final WordFifo words;
    private final boolean receives;
    private final Deque<Long> lengths = new ArrayDeque<>();
    private long come;
    private long gone;
    private int ends;
    private boolean tooMany;

    /**
     * @param longest most accesses of a burst; 1 for none
     * @param bytes bytes of a word
     */
    BurstPlan(int longest, int bytes, WordFifo words, boolean receives) {
        this.longest = longest;
        this.bytes = bytes;
        this.words = words;
        this.receives = receives;
    }

    /**
     * Accesses that follow the first one in its burst.
     *
     * @param place address of the first
     * @param left bytes to the end of the buffer
     */
    int more(long place, long left) {
        long most = Math.min(longest, (left + bytes - 1) / bytes);
        most = Math.min(most, (PAGE - place % PAGE / bytes * bytes) / bytes);
        most = Math.min(most, receives ? there() : words.room());
        return (int) Math.max(0, most - 1);
    }

    /** Words that are there of the packet that is first. */
    private long there() {
        if (ends == 0) {
            return words.held();
        }
        return lengths.isEmpty() ? 1 : lengths.element() - gone;
    }

    /** An edge at which words come and go; null for none. */
    void edge(StreamWord arriving, StreamWord departing) {
        boolean endComes = arriving != null && arriving.last();
        boolean endDeparts = departing != null && departing.last();
        boolean isFull = lengths.size() == MOST_LENGTHS;
        boolean keeps = endComes && !tooMany && !isFull;
        tooMany = endComes ? tooMany || isFull : tooMany && ends > 0;
        if (endDeparts) {
            lengths.poll();
        }
        if (keeps) {
            lengths.add(come + 1);
        }
        come = arriving == null ? come : endComes ? 0 : come + 1;
        gone = departing == null ? gone : endDeparts ? 0 : gone + 1;
        ends += (endComes ? 1 : 0) - (endDeparts ? 1 : 0);
    }

    void clear() {
        lengths.clear();
        come = 0;
        gone = 0;
        ends = 0;
        tooMany = false;
    }
}
