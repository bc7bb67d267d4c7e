package polymetron.quantity;

import java.math.BigDecimal;
import java.math.MathContext;
import java.util.Locale;

/** Frequencies, times and errors as people write them. */
public final class Quantity {
    private static final int DIGITS = 7;
    private static final String[] LARGE = {"", "k", "M", "G"};
    private static final String[] SMALL = {"", "m", "µ", "n"};

    private Quantity() {}

    /** With seven digits and the prefix that leaves a number of 1 to 1000: {@code 12.5 MHz}, {@code 4.7 µs}. */
    public static String format(double value, String unit) {
        if (Double.isNaN(value) || Double.isInfinite(value)) {
            return "—";
        }
        // Baud rates are written out: 115200 Bd.
        if (unit.equals("Bd")) {
            return new BigDecimal(value, new MathContext(DIGITS))
                            .stripTrailingZeros()
                            .toPlainString()
                    + " Bd";
        }
        double scaled = value;
        int step = 0;
        while (Math.abs(scaled) >= 1000 && step < LARGE.length - 1) {
            scaled /= 1000;
            step++;
        }
        String prefix = LARGE[step];
        step = 0;
        while (scaled != 0 && Math.abs(scaled) < 0.9999999 && step < SMALL.length - 1) {
            scaled *= 1000;
            step++;
        }
        prefix = step > 0 ? SMALL[step] : prefix;
        String number =
                new BigDecimal(scaled, new MathContext(DIGITS))
                        .stripTrailingZeros()
                        .toPlainString();
        return number + " " + prefix + unit;
    }

    /** With three digits, for what is an estimate: {@code 48 MB/s}. */
    public static String rough(double value, String unit) {
        double rounded =
                value == 0 || Double.isNaN(value) || Double.isInfinite(value)
                        ? value
                        : new BigDecimal(value).round(new MathContext(3)).doubleValue();
        return format(rounded, unit);
    }

    /** An error in millionths, or in percent from a tenth of one on: {@code exact}, {@code +12 ppm}. */
    public static String error(double ppm) {
        if (ppm == 0) {
            return "exact";
        }
        return Math.abs(ppm) >= 1000
                ? String.format(Locale.ROOT, "%+.2f %%", ppm / 10_000)
                : String.format(Locale.ROOT, Math.abs(ppm) >= 10 ? "%+.0f ppm" : "%+.2g ppm", ppm);
    }
}
