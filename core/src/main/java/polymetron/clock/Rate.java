package polymetron.clock;

import polymetron.library.RateType;

/**
 * A rate or time that a block works at.
 *
 * @param block name of the block
 * @param wanted requested value; NaN when the parameters set it directly
 * @param actual what comes of it; NaN when there is no clock, or its value is not defined
 */
public record Rate(String block, RateType type, double wanted, double actual) {
    /** Difference from the requested value, in percent of it; NaN when none was requested. */
    public double errorPercent() {
        return 100 * (actual - wanted) / wanted;
    }

    /** Whether it is near enough to the requested value. */
    public boolean isGood() {
        return type.limitPercent() == null
                || Double.isNaN(errorPercent())
                || Math.abs(errorPercent()) <= type.limitPercent();
    }
}
