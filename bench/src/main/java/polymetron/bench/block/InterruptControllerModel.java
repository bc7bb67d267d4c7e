package polymetron.bench.block;

/** Platform-level interrupt controller (RISC-V PLIC 1.0.0), level-triggered gateways. */
public final class InterruptControllerModel extends BlockModel {
    private static final int PENDING = 0x1000;
    private static final int ENABLE = 0x2000;
    private static final int ENABLES = 0x80;
    private static final int CONTEXT = 0x20_0000;
    private static final int CONTEXTS = 0x1000;
    private static final int CLAIM = 4;

    private final int sources;
    private final int contexts;
    private final int priorityMask;
    private final int[] priority;
    private final boolean[] level;
    private final boolean[] pending;
    private final boolean[] claimed;
    private final boolean[][] enabled;
    private final int[] threshold;

    public InterruptControllerModel(int sources, int priorityBits, int contexts) {
        this.sources = sources;
        this.contexts = contexts;
        this.priorityMask = (1 << priorityBits) - 1;
        this.priority = new int[sources + 1];
        this.level = new boolean[sources + 1];
        this.pending = new boolean[sources + 1];
        this.claimed = new boolean[sources + 1];
        this.enabled = new boolean[contexts][sources + 1];
        this.threshold = new int[contexts];
    }

    @Override
    protected void clear() {
        for (int source = 0; source <= sources; source++) {
            priority[source] = 0;
            level[source] = false;
            pending[source] = false;
            claimed[source] = false;
            for (boolean[] context : enabled) {
                context[source] = false;
            }
        }
        java.util.Arrays.fill(threshold, 0);
    }

    /** The gateway of a source: a high level asks once, and again only after completion. */
    public void setInput(int input, boolean high) {
        if (input < 1 || input > sources) {
            return;
        }
        level[input] = high;
        if (high && !claimed[input]) {
            pending[input] = true;
        }
    }

    /** The most urgent enabled source of a context; of equal ones the lowest number. */
    private int best(int context) {
        int best = 0;
        int highest = 0;
        for (int source = 1; source <= sources; source++) {
            if (pending[source] && enabled[context][source] && priority[source] > highest) {
                best = source;
                highest = priority[source];
            }
        }
        return best;
    }

    /** Level of the line of a context. */
    public boolean interrupts(int context) {
        int best = context < contexts ? best(context) : 0;
        return best != 0 && priority[best] > threshold[context];
    }

    /** The context whose registers an offset from {@link #CONTEXT} on is in, or -1. */
    private int context(int offset) {
        int context = (offset - CONTEXT) / CONTEXTS;
        return offset >= CONTEXT && context < contexts ? context : -1;
    }

    /** The context whose enable bits an offset is in, or -1. */
    private int enables(int offset) {
        int context = (offset - ENABLE) / ENABLES;
        return offset >= ENABLE && context < contexts ? context : -1;
    }

    @Override
    public int peek(int offset) {
        if (offset >= 4 && offset <= 4 * sources) {
            return priority[offset / 4];
        }
        if (offset >= PENDING && offset < PENDING + ENABLES) {
            return word(pending, offset - PENDING);
        }
        int context = enables(offset);
        if (context >= 0) {
            return word(enabled[context], offset - ENABLE - ENABLES * context);
        }
        context = context(offset);
        if (context < 0) {
            return 0;
        }
        int within = offset - CONTEXT - CONTEXTS * context;
        return within == 0 ? threshold[context] : within == CLAIM ? best(context) : 0;
    }

    @Override
    public int read(int offset) {
        int value = peek(offset);
        int context = context(offset);
        if (context >= 0 && offset - CONTEXT - CONTEXTS * context == CLAIM && value != 0) {
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
            return;
        }
        int context = enables(offset);
        if (context >= 0) {
            enable(context, offset - ENABLE - ENABLES * context, value, mask);
            return;
        }
        context = context(offset);
        int within = offset - CONTEXT - CONTEXTS * context;
        if (context >= 0 && within == 0) {
            threshold[context] = merge(threshold[context], value, mask) & priorityMask;
        } else if (context >= 0 && within == CLAIM) {
            complete(context, value);
        }
    }

    private void enable(int context, int byteOffset, int value, int mask) {
        int merged = merge(word(enabled[context], byteOffset), value, mask);
        for (int bit = 0; bit < 32; bit++) {
            int source = byteOffset * 8 + bit;
            if (source >= 1 && source <= sources) {
                enabled[context][source] = (merged >>> bit & 1) != 0;
            }
        }
    }

    private void complete(int context, int source) {
        // A completion for a source that is not enabled is ignored (PLIC, chapter "Interrupt
        // completion").
        if (source >= 1 && source <= sources && enabled[context][source] && claimed[source]) {
            claimed[source] = false;
            pending[source] |= level[source];
        }
    }
}
