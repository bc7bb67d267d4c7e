package polymetron.bench.stream;

import java.util.ArrayList;
import java.util.List;

/** Keeps the newest words that went through a stream. */
public final class StreamTap {
    /** Words that are kept. */
    public static final int KEPT = 3_072;

    private final int[] values = new int[KEPT];
    private final boolean[] ends = new boolean[KEPT];
    private long count;

    void take(StreamWord word) {
        int at = (int) (count++ % KEPT);
        values[at] = word.low();
        ends[at] = word.last();
    }

    /** Words that went through since it was set. */
    public long count() {
        return count;
    }

    /** A word: its lowest 32 bits, and whether it ended a packet. */
    public record Word(int value, boolean last) {}

    /** The words from a number on, as far as they are kept. */
    public List<Word> since(long first) {
        List<Word> words = new ArrayList<>();
        for (long at = Math.max(0, Math.max(first, count - KEPT)); at < count; at++) {
            int place = (int) (at % KEPT);
            words.add(new Word(values[place], ends[place]));
        }
        return words;
    }
}
