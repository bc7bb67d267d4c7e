package polymetron.bench.block;

import java.math.BigInteger;

/**
 * Signed samples of so many bits, at the low end of a word and spread to all of it.
 *
 * @param bits 1 to 32
 */
record StreamSample(int bits) {
    /** The lowest bits of a number. */
    int of(BigInteger number) {
        return number.intValue() << 32 - bits >> 32 - bits;
    }

    /** A number as a sample; what is too large becomes the largest. */
    int clipped(BigInteger number) {
        return fits(number)
                ? number.intValue()
                : number.signum() < 0 ? -1 << bits - 1 : (int) ((1L << bits - 1) - 1);
    }

    boolean fits(BigInteger number) {
        return number.bitLength() < bits;
    }
}
