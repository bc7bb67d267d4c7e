package polymetron.bench.block;

/** Machine timer and software interrupt of hart 0 (RISC-V ACLINT 1.0: MTIMER and MSWI devices). */
public final class MachineTimerModel extends BlockModel {
    private static final int MSIP = 0x0000;
    private static final int MTIMECMP = 0x4000;
    private static final int MTIME = 0xBFF8;

    private final int divider;
    private long offsetTicks;
    private long compare;
    private boolean software;

    /**
     * @param divider cycles a tick
     */
    public MachineTimerModel(int divider) {
        this.divider = divider;
        clear();
    }

    @Override
    protected void clear() {
        offsetTicks = 0;
        // The specification leaves MTIMECMP open after reset; all ones means no interrupt until it
        // is set.
        compare = -1L;
        software = false;
    }

    private long ticks() {
        return now() / divider + offsetTicks;
    }

    private boolean due() {
        return Long.compareUnsigned(ticks(), compare) >= 0;
    }

    @Override
    public long nextEvent() {
        long distance = compare - ticks();
        if (due() || distance < 0 || distance > NEVER / divider / 2) {
            return NEVER;
        }
        return (now() / divider + distance) * divider;
    }

    @Override
    public boolean interrupt(String source) {
        return source.equals("timer") ? due() : software;
    }

    @Override
    public int read(int offset) {
        return switch (offset) {
            case MSIP -> software ? 1 : 0;
            case MTIMECMP -> (int) compare;
            case MTIMECMP + 4 -> (int) (compare >>> 32);
            case MTIME -> (int) ticks();
            case MTIME + 4 -> (int) (ticks() >>> 32);
            default -> 0;
        };
    }

    @Override
    public void write(int offset, int value, int mask) {
        switch (offset) {
            case MSIP -> software = (merge(software ? 1 : 0, value, mask) & 1) != 0;
            case MTIMECMP -> compare = withLow(compare, merge((int) compare, value, mask));
            case MTIMECMP + 4 ->
                    compare = withHigh(compare, merge((int) (compare >>> 32), value, mask));
            case MTIME -> setTicks(withLow(ticks(), merge((int) ticks(), value, mask)));
            case MTIME + 4 ->
                    setTicks(withHigh(ticks(), merge((int) (ticks() >>> 32), value, mask)));
            default -> {}
        }
    }

    private void setTicks(long ticks) {
        offsetTicks += ticks - ticks();
    }

    private static long withLow(long whole, int low) {
        return whole & ~0xFFFF_FFFFL | Integer.toUnsignedLong(low);
    }

    private static long withHigh(long whole, int high) {
        return whole & 0xFFFF_FFFFL | (long) high << 32;
    }
}
