package polymetron.bench.hart;

/** Causes of traps (RISC-V Privileged ISA, table "mcause after trap"). */
public final class Trap {
    public static final int FETCH_MISALIGNED = 0;
    public static final int FETCH_FAULT = 1;
    public static final int ILLEGAL = 2;
    public static final int BREAKPOINT = 3;
    public static final int LOAD_MISALIGNED = 4;
    public static final int LOAD_FAULT = 5;
    public static final int STORE_MISALIGNED = 6;
    public static final int STORE_FAULT = 7;
    public static final int CALL = 11;
    public static final int SOFTWARE_LINE = 3;
    public static final int TIMER_LINE = 7;
    public static final int EXTERNAL_LINE = 11;

    private Trap() {}

    /** What happened, in words. */
    public static String words(int cause) {
        boolean interrupt = cause < 0;
        int number = cause & 0x7FFF_FFFF;
        if (interrupt) {
            return switch (number) {
                case SOFTWARE_LINE -> "software interrupt";
                case TIMER_LINE -> "timer interrupt";
                case EXTERNAL_LINE -> "external interrupt";
                default -> "interrupt " + number;
            };
        }
        return switch (number) {
            case FETCH_MISALIGNED -> "jump to a misaligned address";
            case FETCH_FAULT -> "bus fault on an instruction";
            case ILLEGAL -> "illegal instruction";
            case BREAKPOINT -> "breakpoint";
            case LOAD_MISALIGNED -> "misaligned load";
            case LOAD_FAULT -> "bus fault on a load";
            case STORE_MISALIGNED -> "misaligned store";
            case STORE_FAULT -> "bus fault on a store";
            case CALL -> "environment call";
            default -> "trap " + number;
        };
    }
}
