package polymetron.elaborate;

/** The number by which software tells a processor's first hart from others (RISC-V Privileged ISA, 3.1.5). */
public final class HartNumber {
    /** Parameter of a processor that is its number. */
    public static final String PARAMETER = "HART_ID";

    private HartNumber() {}

    /** Whether a block has one. */
    public static boolean isThere(ElaboratedBlock block) {
        return block.type().parameter(PARAMETER).isPresent();
    }

    public static long of(ElaboratedBlock block) {
        return block.shape().number(PARAMETER);
    }

    /** Whether the definition leaves no choice, as for harts in silicon. */
    public static boolean isFixed(ElaboratedBlock block) {
        var form = block.type().parameter(PARAMETER).orElseThrow();
        return form.maximum() != null && block.shape().number(form.maximum(), 0) == 0;
    }
}
