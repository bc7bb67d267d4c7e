package polymetron.software;

import polymetron.library.Capability;

/** Interrupt lines of a hart, with the cause that software reads (RISC-V Privileged ISA, table "mcause after trap"). */
public enum HartLine {
    SOFTWARE(3),
    TIMER(7),
    EXTERNAL(11),
    /** Lines of the platform's own, from cause 16 on. */
    LOCAL(16);

    private final int cause;

    HartLine(int cause) {
        this.cause = cause;
    }

    /** The cause; for local lines that of the input itself. */
    public int cause(int input) {
        return this == LOCAL ? input : cause;
    }

    public int cause() {
        return cause;
    }

    /** The interrupt sink that a processor has for it; null for none. */
    String sinkOf(Capability.Hart role) {
        if (role.lines() == null) {
            return null;
        }
        return switch (this) {
            case SOFTWARE -> role.lines().software();
            case TIMER -> role.lines().timer();
            case EXTERNAL -> role.lines().external();
            case LOCAL -> role.lines().local();
        };
    }
}
