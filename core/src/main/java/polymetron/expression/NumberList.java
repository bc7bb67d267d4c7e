package polymetron.expression;

import java.math.BigInteger;
import java.util.List;
import java.util.stream.Stream;

/** Whole numbers that are written one after the other with commas between, as {@code "1, -2, 1"}. */
public final class NumberList {
    private NumberList() {}

    /**
     * @param text empty for no number
     * @throws ExpressionException when something between the commas is no whole number
     */
    public static List<BigInteger> parse(String text) {
        return text.isBlank()
                ? List.of()
                : Stream.of(text.split(",", -1)).map(NumberList::number).toList();
    }

    private static BigInteger number(String item) {
        String digits = item.strip();
        if (!digits.matches("[-+]?[0-9]{1,18}")) {
            throw new ExpressionException(
                    "it is a list of whole numbers such as 1, -2, 1; \"%s\" is none"
                            .formatted(digits));
        }
        return new BigInteger(digits);
    }
}
