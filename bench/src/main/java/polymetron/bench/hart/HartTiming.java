package polymetron.bench.hart;

/**
 * Cycles of a hart that does one instruction after the other, beside those of its accesses: it fetches, executes, and loads
 * or stores then.
 *
 * @param execute an instruction that is there
 * @param multiply what a multiplication takes on top
 * @param divide what a division takes on top
 * @param interrupt to take an interrupt
 * @param wake to go on after waiting for one
 */
public record HartTiming(int execute, int multiply, int divide, int interrupt, int wake) {
    /** A cycle for every instruction, where nothing better is known. */
    public static final HartTiming ONE_EACH = new HartTiming(1, 0, 0, 0, 0);
}
