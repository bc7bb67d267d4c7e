package polymetron.clock;

import polymetron.library.RateType;

/**
 * A rate or time that a block works at.
 *
 * @param block name of the block
 * @param wanted what was asked for; NaN when the parameters set it directly
 * @param actual what comes of it; NaN when there is no clock, or its value is not defined
 */
public record Rate(String block, RateType type, double wanted, double actual) {
    /** Difference from what was asked for, in percent of that; NaN when nothing was asked for. */
    public double errorPercent() {
        return 100 * (actual - wanted) / wanted;
    }

    /** Whether it is as near to what was asked for as it has to be. */
    public boolean isGood() {
        return type.limitPercent() == null
                || Double.isNaN(errorPercent())
                || Math.abs(errorPercent()) <= type.limitPercent();
    }
}
