package polymetron.bench.hart;

import java.util.function.LongSupplier;

/** The control and status registers of a hart with machine mode only (RISC-V Privileged ISA, chapter 3). */
public final class Csrs {
    private static final int MIE = 1 << 3;
    private static final int MPIE = 1 << 7;
    private static final int MPP = 3 << 11;
    private static final int LINES =
            1 << Trap.SOFTWARE_LINE | 1 << Trap.TIMER_LINE | 1 << Trap.EXTERNAL_LINE;

    /** First of the lines that the platform may use as it likes (Privileged ISA, 3.1.9). */
    private static final int FIRST_LOCAL_LINE = 16;

    private final int hartId;
    private final int misa;
    private final int addressMask;
    private int mstatus;
    private int mie;
    private int mip;
    private int mtvec;
    private int mscratch;
    private int mepc;
    private int mcause;
    private int mtval;
    private long cycles;
    private long cycleOffset;
    private long retired;
    private long traps;
    private int lines = LINES;
    private boolean counters = true;
    private boolean inTrap;
    private LongSupplier time;

    Csrs(int hartId, boolean multiplies, boolean compresses) {
        this.hartId = hartId;
        // MXL = 1 (32 bits), extension I, and M and C where they are there.
        this.misa = 1 << 30 | 1 << 8 | (multiplies ? 1 << 12 : 0) | (compresses ? 1 << 2 : 0);
        this.addressMask = compresses ? ~1 : ~3;
    }

    void reset(int trapVector) {
        mstatus = MPP;
        mie = 0;
        mip = 0;
        mtvec = trapVector & ~2;
        mscratch = 0;
        mepc = 0;
        mcause = 0;
        mtval = 0;
        cycles = 0;
        cycleOffset = 0;
        retired = 0;
        traps = 0;
        inTrap = false;
    }

    /** After a reset while time goes on: counters begin again. */
    void startAt(long now) {
        cycles = now;
        cycleOffset = -now;
    }

    /** Gives the hart lines of its own from number 16 on, at most 16. */
    public void addLocalLines(int count) {
        lines = LINES | (int) ((1L << count) - 1 << FIRST_LOCAL_LINE);
    }

    /** Whether the counters can be read outside machine mode (extension Zicntr). */
    public void setCounters(boolean there) {
        counters = there;
    }

    /** Gives the hart a time: MTIME of the machine timer that serves it. */
    public void setTime(LongSupplier mtime) {
        time = mtime;
    }

    /** Where the hart goes on a trap. */
    int trapBase() {
        return mtvec & ~3;
    }

    /** Sets an interrupt line of the hart. */
    public void setLine(int line, boolean high) {
        mip = high ? mip | 1 << line : mip & ~(1 << line);
    }

    /** Tells the counters the time, in cycles since reset. */
    public void setCycles(long now) {
        cycles = now;
    }

    /** Counts instructions that are done. */
    void retire(int count) {
        retired += count;
    }

    /** Traps taken since reset, interrupts among them. */
    public long traps() {
        return traps;
    }

    public int lastCause() {
        return mcause;
    }

    public int lastTrapAddress() {
        return mepc;
    }

    public int lastTrapValue() {
        return mtval;
    }

    int pending() {
        return mip & mie;
    }

    boolean interruptsOn() {
        return (mstatus & MIE) != 0;
    }

    int enterTrap(int pc, int cause, int value) {
        inTrap = true;
        mepc = pc;
        mcause = cause;
        mtval = value;
        mstatus = mstatus & ~(MIE | MPIE) | ((mstatus & MIE) != 0 ? MPIE : 0);
        traps++;
        int base = mtvec & ~3;
        return (mtvec & 1) != 0 && cause < 0 ? base + 4 * (cause & 0x7FFF_FFFF) : base;
    }

    /** Whether a trap was taken and not returned from. */
    boolean isInTrap() {
        return inTrap;
    }

    int leaveTrap() {
        inTrap = false;
        mstatus = mstatus & ~MIE | ((mstatus & MPIE) != 0 ? MIE : 0) | MPIE;
        return mepc;
    }

    boolean isReadOnly(int number) {
        return number >>> 10 == 3;
    }

    boolean exists(int number) {
        return switch (number) {
            case 0x300, 0x301, 0x304, 0x305, 0x310, 0x320, 0x340, 0x341, 0x342, 0x343, 0x344 ->
                    true;
            case 0xB00, 0xB02, 0xB80, 0xB82 -> true;
            case 0xC00, 0xC02, 0xC80, 0xC82 -> counters;
            case 0xC01, 0xC81 -> counters && time != null;
            case 0xF11, 0xF12, 0xF13, 0xF14, 0xF15 -> true;
            default ->
                    number >= 0x323 && number <= 0x33F
                            || number >= 0xB03 && number <= 0xB1F
                            || number >= 0xB83 && number <= 0xB9F;
        };
    }

    /** Value of a register; one that is hard-wired to zero here, or is not there, reads as 0. */
    public int read(int number) {
        return switch (number) {
            case 0x300 -> mstatus;
            case 0x301 -> misa;
            case 0x304 -> mie;
            case 0x305 -> mtvec;
            case 0x340 -> mscratch;
            case 0x341 -> mepc;
            case 0x342 -> mcause;
            case 0x343 -> mtval;
            case 0x344 -> mip;
            case 0xB00, 0xC00 -> (int) (cycles + cycleOffset);
            case 0xB80, 0xC80 -> (int) (cycles + cycleOffset >>> 32);
            case 0xB02, 0xC02 -> (int) retired;
            case 0xB82, 0xC82 -> (int) (retired >>> 32);
            case 0xC01 -> (int) time.getAsLong();
            case 0xC81 -> (int) (time.getAsLong() >>> 32);
            case 0xF14 -> hartId;
            default -> 0;
        };
    }

    void write(int number, int value) {
        switch (number) {
            case 0x300 -> mstatus = value & (MIE | MPIE) | MPP;
            case 0x304 -> mie = value & lines;
            case 0x305 -> mtvec = value & ~2;
            case 0x340 -> mscratch = value;
            case 0x341 -> mepc = value & addressMask;
            case 0x342 -> mcause = value;
            case 0x343 -> mtval = value;
            // What is written is there after the instruction, which does not count on top
            // (Privileged ISA, 3.1.10).
            case 0xB00 -> cycleOffset = low(cycles + cycleOffset, value) - cycles - 1;
            case 0xB80 -> cycleOffset = high(cycles + cycleOffset + 1, value) - cycles - 1;
            case 0xB02 -> retired = low(retired, value) - 1;
            case 0xB82 -> retired = high(retired + 1, value) - 1;
            default -> {}
        }
    }

    private static long low(long old, int value) {
        return old & ~0xFFFF_FFFFL | value & 0xFFFF_FFFFL;
    }

    private static long high(long old, int value) {
        return old & 0xFFFF_FFFFL | (long) value << 32;
    }
}
