package polymetron.expression;

import java.math.BigDecimal;
import java.math.BigInteger;
import java.math.RoundingMode;

/** What a constant expression evaluates to: a vector of bits, a real number or a string. */
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

    /** A real number (IEEE 1800-2017, 6.12), finite. */
    record Real(double number) implements Value {
        public Real {
            if (!Double.isFinite(number)) {
                throw new ExpressionException("the result is no finite number");
            }
        }

        @Override
        public String toString() {
            return BigDecimal.valueOf(number).toString();
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
            // Rounded to the nearest, a half away from zero (IEEE 1800-2017, 6.12.1).
            case Real real ->
                    new BigDecimal(real.number()).setScale(0, RoundingMode.HALF_UP).toBigInteger();
            case Text text ->
                    throw new ExpressionException(
                            "\"%s\" is a string, not a number".formatted(text.text()));
        };
    }

    /** The number without rounding; strings have none. */
    default BigDecimal asDecimal() {
        return this instanceof Real real
                ? BigDecimal.valueOf(real.number())
                : new BigDecimal(asNumber());
    }

    /** Whether it is not zero; strings have no truth. */
    default boolean isTrue() {
        if (this instanceof Real real) {
            return real.number() != 0;
        }
        return asNumber().signum() != 0;
    }
}
