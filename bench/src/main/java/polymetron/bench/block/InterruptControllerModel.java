package polymetron.bench.block;

/**
 * Platform-level interrupt controller (RISC-V PLIC 1.0.0), level-triggered gateways. The registers are found where that
 * standard has them.
 */
public final class InterruptControllerModel extends BankModel {
    private static final int PRIORITY = 0x0000;
    private static final int PENDING = 0x1000;
    private static final int ENABLE = 0x2000;
    private static final int ENABLES = 0x80;
    private static final int CONTEXT = 0x20_0000;
    private static final int CONTEXTS = 0x1000;
    private static final int CLAIM = 4;

    private final int sources;
    private final BankField[] priority;
    private final BankField[] pending;
    private final boolean[] level;
    private final boolean[] claimed;

    /** When a level is seen: in the cycle after it came. */
    private final long[] seen;

    /** The first of them. */
    private long firstSeen;

    /** By context and word. */
    private final BankField[][] enabled;

    private final BankField[] threshold;

    public InterruptControllerModel(RegisterBank bank, int sources, int contexts) {
        super(bank);
        this.sources = sources;
        this.priority = new BankField[sources + 1];
        this.level = new boolean[sources + 1];
        this.claimed = new boolean[sources + 1];
        this.seen = new long[sources + 1];
        java.util.Arrays.fill(seen, NEVER);
        this.firstSeen = NEVER;
        for (int source = 1; source <= sources; source++) {
            priority[source] = bank.readAt(PRIORITY + 4 * source, 0);
        }
        this.pending = words(bank, PENDING);
        this.enabled = new BankField[contexts][];
        this.threshold = new BankField[contexts];
        for (int each = 0; each < contexts; each++) {
            int context = each;
            enabled[context] = words(bank, ENABLE + ENABLES * context);
            threshold[context] = bank.readAt(CONTEXT + CONTEXTS * context, 0);
            bank.readAt(CONTEXT + CONTEXTS * context + CLAIM, 0)
                    .gives(() -> best(context))
                    .onTaken(() -> claim(best(context)))
                    .onWritten(source -> complete(context, (int) source));
        }
    }

    private BankField[] words(RegisterBank bank, int offset) {
        BankField[] words = new BankField[sources / 32 + 1];
        for (int word = 0; word < words.length; word++) {
            words[word] = bank.readAt(offset + 4 * word, 0);
        }
        return words;
    }

    @Override
    protected void clear() {
        super.clear();
        java.util.Arrays.fill(level, false);
        java.util.Arrays.fill(claimed, false);
        java.util.Arrays.fill(seen, NEVER);
        firstSeen = NEVER;
    }

    /** The gateway of a source: a high level asks once, and again only after completion. */
    public void setInput(int input, boolean high) {
        if (input < 1 || input > sources) {
            return;
        }
        level[input] = high;
        boolean isPending = (pending[input / 32].get() >> input % 32 & 1) != 0;
        if (high && !claimed[input] && !isPending && seen[input] == NEVER) {
            seen[input] = now() + 1;
            firstSeen = Math.min(firstSeen, seen[input]);
        }
    }

    @Override
    public long nextEvent() {
        return firstSeen;
    }

    @Override
    protected void run() {
        if (firstSeen > now()) {
            return;
        }
        firstSeen = NEVER;
        for (int input = 1; input <= sources; input++) {
            if (seen[input] <= now()) {
                seen[input] = NEVER;
                pending[input / 32].set(1L << input % 32);
            }
            firstSeen = Math.min(firstSeen, seen[input]);
        }
    }

    /** The most urgent enabled source of a context; of equal ones the lowest number. */
    private int best(int context) {
        int best = 0;
        long highest = 0;
        for (int word = 0; word < pending.length; word++) {
            long asking = pending[word].get() & enabled[context][word].get();
            for (; asking != 0; asking &= asking - 1) {
                int source = 32 * word + Long.numberOfTrailingZeros(asking);
                if (priority[source].get() > highest) {
                    best = source;
                    highest = priority[source].get();
                }
            }
        }
        return best;
    }

    /** Level of the line of a context. */
    public boolean interrupts(int context) {
        int best = context < threshold.length ? best(context) : 0;
        return best != 0 && priority[best].get() > threshold[context].get();
    }

    private void claim(int source) {
        if (source != 0) {
            BankField word = pending[source / 32];
            word.put(word.get() & ~(1L << source % 32));
            claimed[source] = true;
        }
    }

    private void complete(int context, int source) {
        // A completion for a source that is not enabled is ignored (PLIC, chapter "Interrupt
        // completion").
        if (source >= 1
                && source <= sources
                && (enabled[context][source / 32].get() >>> source % 32 & 1) != 0
                && claimed[source]) {
            claimed[source] = false;
            pending[source / 32].set((level[source] ? 1L : 0) << source % 32);
        }
    }
}
