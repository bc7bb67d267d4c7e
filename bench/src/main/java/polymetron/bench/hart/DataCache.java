package polymetron.bench.hart;

import java.util.Arrays;

/**
 * Lines of memory that a hart keeps for its loads. Stores go through to memory and change a line that is kept; nothing is fetched
 * for a store. What others write to memory is not seen in a kept line: a FENCE drops all of them. Of several ways the one that was
 * filled the longest ago is filled next.
 */
public final class DataCache {
    private final int lineBits;
    private final int sets;
    private final int ways;

    /** By set and way: the address of the line, above its own bits. */
    private final int[] lines;

    private final boolean[] kept;
    private final byte[] next;
    private final byte[] bytes;

    /**
     * @param size bytes in all, a multiple of line and ways
     * @param line bytes of a line, a power of two
     * @param ways lines that an address can be in
     */
    public DataCache(int size, int line, int ways) {
        this.lineBits = Integer.numberOfTrailingZeros(line);
        this.ways = ways;
        this.sets = Math.max(1, size / line / ways);
        this.lines = new int[sets * ways];
        this.kept = new boolean[lines.length];
        this.next = new byte[sets];
        this.bytes = new byte[lines.length << lineBits];
    }

    /** Drops all lines. */
    void clear() {
        Arrays.fill(kept, false);
    }

    private int set(int address) {
        return (address >>> lineBits) % sets;
    }

    /** Where the byte of an address is kept in {@link #bytes}; -1 where it is not. */
    int find(int address) {
        int line = address >>> lineBits;
        int first = set(address) * ways;
        for (int at = first; at < first + ways; at++) {
            if (kept[at] && lines[at] == line) {
                return at << lineBits | address & (1 << lineBits) - 1;
            }
        }
        return -1;
    }

    /**
     * Fetches the line of an address.
     *
     * @param base address of the memory's first byte
     * @return the same as {@link #find}; -1 where the memory does not have the whole line
     */
    int fill(Ram memory, int base, int address) {
        int start = (address & -(1 << lineBits)) - base;
        if (start < 0 || start > memory.bytes.length - (1 << lineBits)) {
            return -1;
        }
        int set = set(address);
        int at = set * ways + next[set];
        next[set] = (byte) ((next[set] + 1) % ways);
        lines[at] = address >>> lineBits;
        kept[at] = true;
        System.arraycopy(memory.bytes, start, bytes, at << lineBits, 1 << lineBits);
        return at << lineBits | address & (1 << lineBits) - 1;
    }

    /** What a load reads at a place that {@link #find} gave. */
    byte[] bytes() {
        return bytes;
    }

    /** A store has changed memory: a line that is kept changes with it. */
    void stored(Ram memory, int base, int address, int size) {
        int at = find(address);
        if (at >= 0) {
            System.arraycopy(memory.bytes, address - base, bytes, at, size);
        }
    }
}
