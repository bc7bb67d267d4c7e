package polymetron.bench.hart;

import java.util.Arrays;

/**
 * Which lines of instructions a hart keeps, for the cycles that fetching them takes. Instructions themselves are always those in
 * memory: a program that changes its own instructions finds them without a FENCE.I, which hardware does not promise.
 */
public final class InstructionCache {
    private final int lineBits;
    private final int[] lines;
    private final boolean[] kept;

    /**
     * @param size bytes in all, a multiple of the line
     * @param line bytes of a line, a power of two
     */
    public InstructionCache(int size, int line) {
        this.lineBits = Integer.numberOfTrailingZeros(line);
        this.lines = new int[Math.max(1, size / line)];
        this.kept = new boolean[lines.length];
    }

    void clear() {
        Arrays.fill(kept, false);
    }

    /** Whether the line of an address was kept; it is from now on. */
    boolean has(int address) {
        int line = address >>> lineBits;
        int at = line % lines.length;
        if (kept[at] && lines[at] == line) {
            return true;
        }
        kept[at] = true;
        lines[at] = line;
        return false;
    }
}
