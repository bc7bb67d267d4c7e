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
        if (fits(number)) {
            return number.intValue();
        }
        int largest = (int) ((1L << bits - 1) - 1);
        return number.signum() < 0 ? ~largest : largest;
    }

    boolean fits(BigInteger number) {
        return number.bitLength() < bits;
    }

    /** The lowest bits of a number inside a filter, as a signed number. */
    static BigInteger wrapped(BigInteger number, int bits) {
        BigInteger beyond = BigInteger.ONE.shiftLeft(bits);
        BigInteger low = number.mod(beyond);
        return low.testBit(bits - 1) ? low.subtract(beyond) : low;
    }

    /** A number without its lowest bits, rounded, a half up. */
    static BigInteger rounded(BigInteger number, int cuts) {
        return cuts == 0 ? number : number.shiftRight(cuts - 1).add(BigInteger.ONE).shiftRight(1);
    }
}
