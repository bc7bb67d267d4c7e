package polymetron.bench.block;

/** Counts down from LOAD, one each PRESCALE + 1 cycles; the next end is worked out, not counted to. */
final class GeneralTimerModel extends BlockModel {
    private static final int RUN = 1;
    private static final int REPEAT = 2;
    private static final int INTERRUPT = 4;

    private final int widest;
    private final int resetPrescale;
    private int control;
    private int load;
    private int prescale;
    private boolean ended;

    /** While it runs: the cycle at which the counter was at {@link #count}; else unused. */
    private long since;

    private int count;

    GeneralTimerModel(int width, int resetPrescale) {
        this.widest = width >= 32 ? -1 : (1 << width) - 1;
        this.resetPrescale = resetPrescale;
        clear();
    }

    @Override
    protected void clear() {
        control = 0;
        load = 0;
        prescale = resetPrescale;
        ended = false;
        count = 0;
        since = 0;
    }

    private boolean runs() {
        return (control & RUN) != 0;
    }

    private long stepCycles() {
        return Integer.toUnsignedLong(prescale) + 1;
    }

    /** Cycles from a count of so many to the end: the step from 0 on is one more. */
    private long cyclesToEnd(int counts) {
        return (Integer.toUnsignedLong(counts) + 1) * stepCycles();
    }

    @Override
    protected void run() {
        if (!runs() || now() < since + cyclesToEnd(count)) {
            return;
        }
        ended = true;
        since += cyclesToEnd(count);
        if ((control & REPEAT) == 0) {
            control &= ~RUN;
            count = 0;
            return;
        }
        long period = cyclesToEnd(load);
        since += (now() - since) / period * period;
        count = load;
    }

    @Override
    public long nextEvent() {
        return runs() ? since + cyclesToEnd(count) : NEVER;
    }

    private int countNow() {
        return runs() ? count - (int) ((now() - since) / stepCycles()) : count;
    }

    /** Goes on counting from here, with whatever is changed next. */
    private void restart(int from) {
        count = from;
        since = now();
    }

    @Override
    public int read(int offset) {
        return switch (offset) {
            case 0x00 -> control;
            case 0x04 -> load;
            case 0x08 -> countNow();
            case 0x0C -> prescale;
            case 0x10 -> ended ? 1 : 0;
            default -> 0;
        };
    }

    @Override
    public void write(int offset, int value, int mask) {
        switch (offset) {
            case 0x00 -> {
                restart(countNow());
                control = merge(control, value, mask) & (RUN | REPEAT | INTERRUPT);
            }
            case 0x04 -> {
                load = merge(load, value, mask) & widest;
                restart(load);
            }
            case 0x0C -> {
                restart(countNow());
                prescale = merge(prescale, value, mask) & 0xFFFF;
            }
            case 0x10 -> ended &= (value & mask & 1) == 0;
            default -> {}
        }
    }

    @Override
    public boolean interrupt(String source) {
        return ended && (control & INTERRUPT) != 0;
    }
}
