package polymetron.bench.block;

import java.util.Arrays;

/** What answers where the platform has logic outside, as in simulation: a memory of 64 KiB, which repeats. */
final class OutsideModel extends BlockModel {
    private static final int WORDS = 1 << 14;

    private final int[] words = new int[WORDS];

    @Override
    public int read(int offset) {
        return words[place(offset)];
    }

    @Override
    public void write(int offset, int value, int mask) {
        words[place(offset)] = merge(words[place(offset)], value, mask);
    }

    private static int place(int offset) {
        return (offset >>> 2) % WORDS;
    }

    @Override
    protected void clear() {
        // What is outside is not reset.
    }

    @Override
    protected void powerUp() {
        Arrays.fill(words, 0);
    }
}
