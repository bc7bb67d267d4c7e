package polymetron.expression;

import java.math.BigInteger;

/** What a constant expression evaluates to: a vector of bits or a string. */
public sealed interface Value {

    /**
     * A vector of known bits (IEEE 1800-2017, 6.8 and 11.6).
     *
     * @param pattern the bits read as an unsigned number, below 2^width
     * @param width number of bits, at least 1
     * @param signed whether the vector is signed
     * @param sized whether its width was written; an unsized literal may not stand in a concatenation
     */
    record Bits(BigInteger pattern, int width, boolean signed, boolean sized) implements Value {
        public static Bits of(BigInteger number, int width, boolean signed) {
            return new Bits(number.and(mask(width)), width, signed, true);
        }

        public static Bits bit(boolean set) {
            return of(set ? BigInteger.ONE : BigInteger.ZERO, 1, false);
        }

        /** The number that the bits stand for. */
        public BigInteger number() {
            return signed && pattern.testBit(width - 1)
                    ? pattern.subtract(BigInteger.ONE.shiftLeft(width))
                    : pattern;
        }

        static BigInteger mask(int width) {
            return BigInteger.ONE.shiftLeft(width).subtract(BigInteger.ONE);
        }

        @Override
        public String toString() {
            return number().toString();
        }
    }

    /** A string (IEEE 1800-2017, 6.16). */
    record Text(String text) implements Value {
        @Override
        public String toString() {
            return text;
        }
    }

    /** The number; strings have none. */
    default BigInteger asNumber() {
        return switch (this) {
            case Bits bits -> bits.number();
            case Text text ->
                    throw new ExpressionException(
                            "\"%s\" is a string, not a number".formatted(text.text()));
        };
    }

    /** Whether any bit is set; strings have no truth. */
    default boolean isTrue() {
        return asNumber().signum() != 0;
    }
}
