package polymetron.quantity;

import java.math.BigDecimal;

/** Frequencies as people write them. */
public final class Frequency {
    private Frequency() {}

    /** With the largest of Hz, kHz, MHz and GHz that leaves a number of at least 1: {@code 12.5 MHz}. */
    public static String format(long hertz) {
        String[] units = {"Hz", "kHz", "MHz", "GHz"};
        int unit = 0;
        long scale = 1;
        while (unit < units.length - 1 && hertz >= scale * 1000) {
            scale *= 1000;
            unit++;
        }
        return BigDecimal.valueOf(hertz)
                        .divide(BigDecimal.valueOf(scale))
                        .stripTrailingZeros()
                        .toPlainString()
                + " "
                + units[unit];
    }
}
