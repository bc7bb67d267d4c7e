package polymetron.quantity;

import java.math.BigDecimal;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.regex.MatchResult;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * Numbers with prefixes and units as people write them, brought to plain numbers: {@code 115.2k} and {@code 115200 Bd} are 115200,
 * {@code 256 MiB + 36 KiB} is a sum of bytes. Decimal prefixes are those of the International System of Units (k, M, G; m and µ
 * with a unit); Ki, Mi and Gi are binary (IEC 80000-13), and so is a bare K, M or G of what is counted in powers of two.
 */
public final class TypedQuantities {
    private static final Pattern QUANTITY =
            Pattern.compile(
                    "(?<![\\w.'])(\\d[\\d_]*(?:\\.\\d+)?)(\\s*)(Ki|Mi|Gi|Ti|[kKMGTmgtuµ])?(bytes?|[A-Za-z]+)?(?![\\w.'])");

    /** Units that count in thousands. */
    private static final Set<String> DECIMAL = Set.of("Bd", "Hz", "s", "V", "cycles", "samples");

    private static final Map<String, Integer> THOUSANDS =
            Map.of("k", 1, "K", 1, "M", 2, "G", 3, "T", 4, "m", -1, "u", -2, "µ", -2);

    private static final int THREE_DIGITS = 3;
    private static final int TEN_BITS = 10;

    private TypedQuantities() {}

    /**
     * The text with each quantity written as a plain number; where a prefix or unit does not fit, it stays as it is, and whoever
     * reads the text says what would be right.
     *
     * @param unit in which the number is wanted, such as {@code Bd} or {@code bytes}; null for none
     */
    public static String plain(String text, String unit) {
        return QUANTITY.matcher(text).replaceAll(match -> quantity(match, unit));
    }

    private static String quantity(MatchResult match, String unit) {
        String all = Matcher.quoteReplacement(match.group());
        String prefix = match.group(3);
        String written = match.group(4);
        if (prefix == null && written == null) {
            return all;
        }
        boolean isBytes = "B".equals(written) || written != null && written.startsWith("byte");
        boolean fits =
                written == null
                        || written.equalsIgnoreCase(unit)
                        || isBytes && (unit == null || unit.equals("bytes"));
        BigDecimal factor = fits ? factor(prefix, written, unit) : null;
        if (factor == null) {
            return all;
        }
        BigDecimal value =
                new BigDecimal(match.group(1).replace("_", ""))
                        .multiply(factor)
                        .stripTrailingZeros();
        return value.toPlainString();
    }

    /** What a prefix multiplies with; null for one that has no meaning here. */
    private static BigDecimal factor(String prefix, String written, String unit) {
        if (prefix == null) {
            return BigDecimal.ONE;
        }
        boolean isBinary = prefix.length() == 2 || unit == null || !DECIMAL.contains(unit);
        if (isBinary) {
            int power = 1 + "kmgt".indexOf(prefix.substring(0, 1).toLowerCase(Locale.ROOT));
            return power == 0 ? null : new BigDecimal(1L << TEN_BITS * power);
        }
        Integer thousands = THOUSANDS.get(prefix);
        // A bare m could be either.
        return thousands == null || thousands < 0 && written == null
                ? null
                : BigDecimal.ONE.scaleByPowerOfTen(THREE_DIGITS * thousands);
    }
}
