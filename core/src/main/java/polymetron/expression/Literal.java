package polymetron.expression;

import java.math.BigInteger;

/** Reads number literals (IEEE 1800-2017, 5.7.1). */
final class Literal {
    private Literal() {}

    static Value.Bits number(String text) {
        String compact = text.replace("_", "").replaceAll("\\s", "");
        int quote = compact.indexOf('\'');
        if (quote < 0) {
            BigInteger value = new BigInteger(compact);
            // An unsized decimal is signed and at least 32 bits wide; we let it grow so that
            // nothing is cut off.
            return new Value.Bits(value, Math.max(32, value.bitLength() + 1), true, false);
        }
        boolean signed = Character.toLowerCase(compact.charAt(quote + 1)) == 's';
        int base = quote + (signed ? 2 : 1);
        String digits = compact.substring(base + 1);
        if (digits.matches(".*[xXzZ?].*")) {
            throw new ExpressionException(
                    "%s has unknown bits; a parameter needs known ones".formatted(text));
        }
        BigInteger value = new BigInteger(digits, radix(text, compact.charAt(base)));
        boolean sized = quote > 0;
        int width =
                sized ? width(text, compact.substring(0, quote)) : Math.max(32, value.bitLength());
        return new Value.Bits(value.and(Value.Bits.mask(width)), width, signed, sized);
    }

    private static int radix(String text, char letter) {
        return switch (Character.toLowerCase(letter)) {
            case 'b' -> 2;
            case 'o' -> 8;
            case 'd' -> 10;
            case 'h' -> 16;
            default ->
                    throw new ExpressionException(
                            "%s has no number base that we know".formatted(text));
        };
    }

    private static int width(String text, String digits) {
        if (digits.length() > 6
                || Integer.parseInt(digits) < 1
                || Integer.parseInt(digits) > Node.WIDEST) {
            throw new ExpressionException(
                    "%s: a width lies between 1 and %s bits".formatted(text, Node.WIDEST));
        }
        return Integer.parseInt(digits);
    }
}
