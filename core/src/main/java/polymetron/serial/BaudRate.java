package polymetron.serial;

/**
 * The rate that a 16550 makes: the clock divided by 16 and by a whole divisor of 1 to 65535 (PC16550D data
 * sheet, table III and section 8.3). The divisor is rounded to the nearest.
 *
 * @param wanted requested rate in baud
 * @param clockHz reference clock in hertz
 */
public record BaudRate(long wanted, long clockHz) {
    /** Error beyond which receivers begin to lose bits (common practice, no source). */
    public static final double LIMIT_PERCENT = 2.0;

    public long divisor() {
        return Math.clamp(Math.round(clockHz / (16.0 * wanted)), 1, 65_535);
    }

    /** Actual rate, in baud. */
    public double actual() {
        return clockHz / (16.0 * divisor());
    }

    /** Difference of the actual rate from the requested one, in percent of the latter; negative when slow. */
    public double errorPercent() {
        return 100.0 * (actual() - wanted) / wanted;
    }

    public boolean isWithinLimit() {
        return Math.abs(errorPercent()) <= LIMIT_PERCENT;
    }
}
