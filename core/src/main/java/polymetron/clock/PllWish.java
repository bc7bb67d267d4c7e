package polymetron.clock;

/**
 * A frequency that a PLL should make.
 *
 * @param name what the clock is called
 * @param hertz requested frequency, above 0
 * @param tolerancePpm error that is still good enough, in millionths of the frequency; 0 for none
 */
public record PllWish(String name, long hertz, double tolerancePpm) {
    /** Highest frequency that can be requested. */
    public static final long HIGHEST_HZ = 10_000_000_000L;

    public PllWish {
        if (hertz <= 0 || hertz > HIGHEST_HZ) {
            throw new IllegalArgumentException(
                    "%s: a clock has at least 1 Hz and at most 10 GHz, not %s Hz"
                            .formatted(name, hertz));
        }
        if (!(tolerancePpm >= 0 && tolerancePpm <= 1_000_000)) {
            throw new IllegalArgumentException(
                    "%s: a tolerance is between 0 and 1000000 ppm".formatted(name));
        }
    }
}
