package polymetron.bench.block;

import java.util.Arrays;

/** Machine timer and software interrupts of some harts (RISC-V ACLINT 1.0: MTIMER and MSWI devices). */
public final class MachineTimerModel extends BlockModel {
    private static final int MSIP = 0x0000;
    private static final int MTIMECMP = 0x4000;
    private static final int MTIME = 0xBFF8;

    private final int divider;
    private final int harts;
    private final long[] compare;
    private final boolean[] software;
    private long offsetTicks;

    /**
     * @param divider cycles a tick
     */
    public MachineTimerModel(int divider, int harts) {
        this.divider = divider;
        this.harts = harts;
        this.compare = new long[harts];
        this.software = new boolean[harts];
        clear();
    }

    @Override
    protected void clear() {
        offsetTicks = 0;
        // The specification leaves MTIMECMP open after reset; all ones means no interrupt until it
        // is set.
        Arrays.fill(compare, -1L);
        Arrays.fill(software, false);
    }

    /** MTIME. */
    public long ticks() {
        return now() / divider + offsetTicks;
    }

    /** Whether the timer interrupt of a hart is pending. */
    public boolean isDue(int hart) {
        return Long.compareUnsigned(ticks(), compare[hart]) >= 0;
    }

    /** Whether the software interrupt of a hart is pending. */
    public boolean isSignalled(int hart) {
        return software[hart];
    }

    @Override
    public long nextEvent() {
        long next = NEVER;
        for (int hart = 0; hart < harts; hart++) {
            long distance = compare[hart] - ticks();
            if (!isDue(hart) && distance >= 0 && distance <= NEVER / divider / 4) {
                next = Math.min(next, (now() / divider + distance) * divider);
            }
        }
        return next;
    }

    @Override
    public int read(int offset) {
        int hart = (offset - MTIMECMP) / 8;
        if (offset >= MTIMECMP && hart < harts) {
            return (int) (compare[hart] >>> 8 * (offset & 4));
        }
        if (offset < MSIP + 4 * harts) {
            return software[offset / 4] ? 1 : 0;
        }
        return switch (offset) {
            case MTIME -> (int) ticks();
            case MTIME + 4 -> (int) (ticks() >>> 32);
            default -> 0;
        };
    }

    @Override
    public void write(int offset, int value, int mask) {
        int hart = (offset - MTIMECMP) / 8;
        if (offset >= MTIMECMP && hart < harts) {
            compare[hart] = withHalf(compare[hart], offset, value, mask);
        } else if (offset < MSIP + 4 * harts) {
            software[offset / 4] = (merge(software[offset / 4] ? 1 : 0, value, mask) & 1) != 0;
        } else if (offset == MTIME || offset == MTIME + 4) {
            offsetTicks += withHalf(ticks(), offset, value, mask) - ticks();
        }
    }

    /** A 64-bit register with one of its words written. */
    private static long withHalf(long whole, int offset, int value, int mask) {
        int shift = 8 * (offset & 4);
        int half = merge((int) (whole >>> shift), value, mask);
        return whole & ~(0xFFFF_FFFFL << shift) | Integer.toUnsignedLong(half) << shift;
    }
}
