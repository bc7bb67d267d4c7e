package polymetron.bench.block;

import polymetron.bench.hart.Registers;

/**
 * How a block with registers behaves on the bench. Time is counted in clock cycles since reset; a model is told
 * the time before each access, and is woken at the time that it asks for.
 */
public abstract class BlockModel implements Registers {
    /** No event to come. */
    public static final long NEVER = Long.MAX_VALUE;

    private long now;

    /** Cycles since reset. */
    protected final long now() {
        return now;
    }

    /** Moves on to a time: does everything that happens until then. */
    public final void advance(long cycle) {
        now = cycle;
        run();
    }

    /** Does what is due at {@link #now}. */
    protected void run() {}

    /** The next cycle at which something happens by itself, or {@link #NEVER}. */
    public long nextEvent() {
        return NEVER;
    }

    /** Back to the state after reset, at cycle 0. */
    public final void reset() {
        now = 0;
        clear();
    }

    protected abstract void clear();

    /** Reads a register without the effects that reading has. */
    public int peek(int offset) {
        return read(offset);
    }

    /** Whether a register is the one at its address now; several may share one. */
    public boolean isThere(String register) {
        return true;
    }

    /** Level of one of the block's interrupt sources. */
    public boolean interrupt(String source) {
        return false;
    }

    /** Sets the level of one of the block's interrupt inputs. */
    public void setInput(int input, boolean high) {}

    /** The bytes of an old word replaced by those of a new one where the mask is set. */
    protected static int merge(int old, int value, int mask) {
        return old & ~mask | value & mask;
    }
}
