package polymetron.bench.block;

import polymetron.bench.clock.ClockRatio;
import polymetron.bench.hart.Registers;

/**
 * How a block with registers behaves on the bench. Time is counted in cycles of the block's clock since reset;
 * a model is told the time before each access, and is woken at the time that it asks for.
 */
public abstract class BlockModel implements Registers {
    /** No event to come. */
    public static final long NEVER = Long.MAX_VALUE;

    private ClockRatio ratio = ClockRatio.SAME;
    private long now;
    private long processorNow;

    /** Cycle of the block's clock at which it was reset last. */
    private long origin;

    /** Cycles of the block's own clock since reset. */
    protected final long now() {
        return now;
    }

    /** The time of the processor's clock that it was moved on to last. */
    protected final long processorNow() {
        return processorNow;
    }

    /** Gives the block a clock other than that of the processor. */
    public final void clock(ClockRatio ofProcessor) {
        ratio = ofProcessor;
    }

    /** Moves on to a time of the processor's clock: does everything that happens until then. */
    public final void advance(long cycle) {
        processorNow = cycle;
        // It may have been told of a later access already.
        now = Math.max(now, ratio.own(cycle) - origin);
        run();
    }

    /** The cycle of the processor's clock at which something happens by itself next, or {@link #NEVER}. */
    public final long nextEventOfProcessor() {
        long own = nextEvent();
        return own == NEVER ? NEVER : ratio.processor(own + origin);
    }

    /** Does what is due at {@link #now}. */
    protected void run() {}

    /** The next cycle of its own clock at which something happens by itself, or {@link #NEVER}. */
    public long nextEvent() {
        return NEVER;
    }

    /** Back to the state after reset, at cycle 0. */
    public final void reset() {
        now = 0;
        origin = 0;
        clear();
        powerUp();
    }

    /** What begins again with the board, and not with the block: the parts that are on it. */
    protected void powerUp() {}

    /** Back to the state after reset while time goes on: its own begins again. */
    public final void restart() {
        origin += now;
        now = 0;
        clear();
    }

    protected abstract void clear();

    /** Reads a register without the effects that reading has. */
    public int peek(int offset) {
        return read(offset);
    }

    /** Whether {@link #peek} knows what is there. */
    public boolean canPeek() {
        return true;
    }

    /** Whether a register is the one at its address now; several may share one. */
    public boolean isThere(String register) {
        return true;
    }

    /** Level of one of the block's interrupt sources. */
    public boolean interrupt(String source) {
        return false;
    }

    /** The bytes of an old word replaced by those of a new one where the mask is set. */
    protected static int merge(int old, int value, int mask) {
        return old & ~mask | value & mask;
    }
}
