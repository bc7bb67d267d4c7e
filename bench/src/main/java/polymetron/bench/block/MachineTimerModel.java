package polymetron.bench.block;

/**
 * Machine timer and software interrupts of some harts (RISC-V ACLINT 1.0: MTIMER and MSWI devices). The registers are found
 * where that standard has them.
 */
public final class MachineTimerModel extends BankModel {
    private static final int MSIP = 0x0000;
    private static final int MTIMECMP = 0x4000;
    private static final int MTIME = 0xBFF8;

    private final int divider;
    private final BankField[] compare;
    private final BankField[] software;
    private final BankField time;

    /** What MTIME is ahead of the ticks since reset, because software wrote it. */
    private long offsetTicks;

    /**
     * @param divider cycles a tick
     */
    public MachineTimerModel(RegisterBank bank, int divider, int harts) {
        super(bank);
        this.divider = divider;
        this.compare = new BankField[harts];
        this.software = new BankField[harts];
        for (int hart = 0; hart < harts; hart++) {
            compare[hart] = bank.readAt(MTIMECMP + 8 * hart, 0);
            software[hart] = bank.readAt(MSIP + 4 * hart, 0);
        }
        this.time = bank.readAt(MTIME, 0);
        time.gives(this::ticks).givesBefore(() -> ticksAt(now() - 1)).onStored(this::timeWritten);
        clear();
    }

    @Override
    protected void clear() {
        super.clear();
        offsetTicks = 0;
    }

    /** MTIME. */
    public long ticks() {
        return ticksAt(now());
    }

    private long ticksAt(long cycle) {
        return cycle / divider + offsetTicks;
    }

    /** Whether the timer interrupt of a hart is pending. */
    public boolean isDue(int hart) {
        return Long.compareUnsigned(ticks(), compare[hart].get()) >= 0;
    }

    /** Whether the software interrupt of a hart is pending. */
    public boolean isSignalled(int hart) {
        return software[hart].isSet();
    }

    @Override
    public long nextEvent() {
        long next = NEVER;
        for (int hart = 0; hart < compare.length; hart++) {
            long distance = compare[hart].get() - ticks();
            if (!isDue(hart) && distance >= 0 && distance <= NEVER / divider / 4) {
                next = Math.min(next, (now() / divider + distance) * divider);
            }
        }
        return next;
    }

    private void timeWritten() {
        offsetTicks = time.stored() - now() / divider;
    }
}
