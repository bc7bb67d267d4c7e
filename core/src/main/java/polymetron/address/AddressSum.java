package polymetron.address;

import java.math.BigInteger;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * Sums, differences and products of addresses and sizes as people write them: {@code 256 MiB + 36 KiB}, {@code 0x1000_0000 + 4 *
 * 4 KiB}, {@code 32'h1000_0000} (a number of Verilog, IEEE 1800-2017, 5.7.1). Products come before sums; there are no brackets.
 */
final class AddressSum {
    private static final Pattern LITERAL =
            Pattern.compile("(\\d*)\\s*'\\s*[sS]?([hHdDoObB])\\s*([0-9a-fA-F_]+)");

    /** What stands between two signs; the quote of a number of Verilog is part of it. */
    private static final Pattern TERM = Pattern.compile("[^+*\\-\u2212]+");

    private static final int LONGEST = 200;

    private AddressSum() {}

    /** What it comes to, which may be negative; empty where it cannot be read. */
    static Optional<BigInteger> of(String text) {
        BigInteger sum = BigInteger.ZERO;
        BigInteger product = null;
        char sign = '+';
        Matcher term = TERM.matcher(text);
        int at = 0;
        while (text.length() <= LONGEST && term.find(at) && term.start() == at) {
            Optional<BigInteger> value = term(term.group().strip());
            if (value.isEmpty()) {
                return Optional.empty();
            }
            BigInteger read = value.get();
            if (sign == '*') {
                product = product.multiply(read);
            } else {
                sum = product == null ? sum : sum.add(product);
                product = sign == '+' ? read : read.negate();
            }
            if (term.end() == text.length()) {
                return Optional.of(sum.add(product));
            }
            sign = text.charAt(term.end());
            sign = sign == '\u2212' ? '-' : sign;
            at = term.end() + 1;
        }
        return Optional.empty();
    }

    private static Optional<BigInteger> term(String text) {
        Matcher literal = LITERAL.matcher(text);
        return literal.matches() ? literal(literal) : Address.quantity(text);
    }

    private static Optional<BigInteger> literal(Matcher literal) {
        int radix =
                switch (Character.toLowerCase(literal.group(2).charAt(0))) {
                    case 'h' -> 16;
                    case 'o' -> 8;
                    case 'b' -> 2;
                    default -> 10;
                };
        try {
            BigInteger value = new BigInteger(literal.group(3).replace("_", ""), radix);
            String width = literal.group(1);
            boolean fits =
                    width.isEmpty()
                            || width.length() < 4 && value.bitLength() <= Integer.parseInt(width);
            return fits ? Optional.of(value) : Optional.empty();
        } catch (NumberFormatException noDigitsOfThisBase) {
            return Optional.empty();
        }
    }
}
