package polymetron.bench.block;

import polymetron.elaborate.ElaboratedBlock;

/**
 * The numbers of a FIR filter.
 *
 * @param sample bits of a sample
 * @param inside bits of the sum
 * @param shift bits that are cut off
 */
record FirShape(
        int sample,
        int channels,
        int taps,
        int coefficient,
        int inside,
        int shift,
        int multipliers) {
    static FirShape of(ElaboratedBlock block) {
        return new FirShape(
                number(block, "SAMPLE"),
                number(block, "CHANNELS"),
                number(block, "TAPS"),
                number(block, "COEFFICIENT"),
                number(block, "INSIDE"),
                number(block, "SHIFT"),
                number(block, "MULTIPLIERS"));
    }

    private static int number(ElaboratedBlock block, String parameter) {
        return (int) block.shape().number(parameter);
    }

    /** Taps of each multiplier. */
    int depth() {
        return (taps + multipliers - 1) / multipliers;
    }
}
