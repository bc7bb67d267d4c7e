package polymetron.bench.block;

/** Interrupt controller with one context (RISC-V PLIC 1.0.0), level-triggered gateways. */
public final class InterruptControllerModel extends BlockModel {
    private static final int PENDING = 0x1000;
    private static final int ENABLE = 0x2000;
    private static final int THRESHOLD = 0x20_0000;
    private static final int CLAIM = 0x20_0004;

    private final int sources;
    private final int priorityMask;
    private final int[] priority;
    private final boolean[] level;
    private final boolean[] pending;
    private final boolean[] claimed;
    private final boolean[] enabled;
    private int threshold;

    public InterruptControllerModel(int sources, int priorityBits) {
        this.sources = sources;
        this.priorityMask = (1 << priorityBits) - 1;
        this.priority = new int[sources + 1];
        this.level = new boolean[sources + 1];
        this.pending = new boolean[sources + 1];
        this.claimed = new boolean[sources + 1];
        this.enabled = new boolean[sources + 1];
    }

    @Override
    protected void clear() {
        for (int source = 0; source <= sources; source++) {
            priority[source] = 0;
            level[source] = false;
            pending[source] = false;
            claimed[source] = false;
            enabled[source] = false;
        }
        threshold = 0;
    }

    /** The gateway of a source: a high level asks once, and again only after completion. */
    @Override
    public void setInput(int input, boolean high) {
        if (input < 1 || input > sources) {
            return;
        }
        level[input] = high;
        if (high && !claimed[input]) {
            pending[input] = true;
        }
    }

    /** The most urgent enabled source; of equal ones the lowest number. */
    private int best() {
        int best = 0;
        int highest = 0;
        for (int source = 1; source <= sources; source++) {
            if (pending[source] && enabled[source] && priority[source] > highest) {
                best = source;
                highest = priority[source];
            }
        }
        return best;
    }

    @Override
    public boolean interrupt(String source) {
        int best = best();
        return best != 0 && priority[best] > threshold;
    }

    @Override
    public int peek(int offset) {
        if (offset >= 4 && offset <= 4 * sources) {
            return priority[offset / 4];
        }
        if (offset >= PENDING && offset < PENDING + 0x80) {
            return word(pending, offset - PENDING);
        }
        if (offset >= ENABLE && offset < ENABLE + 0x80) {
            return word(enabled, offset - ENABLE);
        }
        return offset == THRESHOLD ? threshold : offset == CLAIM ? best() : 0;
    }

    @Override
    public int read(int offset) {
        int value = peek(offset);
        if (offset == CLAIM && value != 0) {
            pending[value] = false;
            claimed[value] = true;
        }
        return value;
    }

    private int word(boolean[] bits, int byteOffset) {
        int word = 0;
        for (int bit = 0; bit < 32; bit++) {
            int source = byteOffset * 8 + bit;
            word |= source <= sources && bits[source] ? 1 << bit : 0;
        }
        return word;
    }

    @Override
    public void write(int offset, int value, int mask) {
        if (offset >= 4 && offset <= 4 * sources) {
            priority[offset / 4] = merge(priority[offset / 4], value, mask) & priorityMask;
        } else if (offset >= ENABLE && offset < ENABLE + 0x80) {
            int merged = merge(word(enabled, offset - ENABLE), value, mask);
            for (int bit = 0; bit < 32; bit++) {
                int source = (offset - ENABLE) * 8 + bit;
                if (source >= 1 && source <= sources) {
                    enabled[source] = (merged >>> bit & 1) != 0;
                }
            }
        } else if (offset == THRESHOLD) {
            threshold = merge(threshold, value, mask) & priorityMask;
        } else if (offset == CLAIM) {
            complete(value);
        }
    }

    private void complete(int source) {
        // A completion for a source that is not enabled is ignored (PLIC, chapter "Interrupt
        // completion").
        if (source >= 1 && source <= sources && enabled[source] && claimed[source]) {
            claimed[source] = false;
            pending[source] |= level[source];
        }
    }
}
