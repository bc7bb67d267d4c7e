package polymetron.serial;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.library.Capability;
import polymetron.quantity.Quantity;

/**
 * Low and high time of an I2C clock, in cycles of the block's clock (UM10204 rev. 7, table 10).
 *
 * @param role the parameters that set them
 * @param clockHz clock of the block in hertz
 */
public record TwoWireTimes(Capability.TwoWire role, long clockHz, long low, long high) {

    /** A mode of the bus: its highest rate and the least times of its clock. */
    public enum Mode {
        STANDARD("standard mode, 100 kHz", 100_000, 4.7e-6, 4.0e-6),
        FAST("fast mode, 400 kHz", 400_000, 1.3e-6, 0.6e-6),
        FAST_PLUS("fast mode plus, 1 MHz", 1_000_000, 0.5e-6, 0.26e-6);

        private final String title;
        private final long highestHz;
        private final double lowSeconds;
        private final double highSeconds;

        Mode(String title, long highestHz, double lowSeconds, double highSeconds) {
            this.title = title;
            this.highestHz = highestHz;
            this.lowSeconds = lowSeconds;
            this.highSeconds = highSeconds;
        }

        public String title() {
            return title;
        }

        public long highestHz() {
            return highestHz;
        }
    }

    /** Cycles of the low and of the high time. */
    public record Counts(long low, long high) {}

    /** Empty for a block that is no I2C controller, or has no clock. */
    public static Optional<TwoWireTimes> of(ElaboratedPlatform platform, ElaboratedBlock block) {
        long clockHz = platform.frequencyHz(block);
        return clockHz == 0
                ? Optional.empty()
                : block.type().provides(Capability.TwoWire.class).stream()
                        .findFirst()
                        .map(
                                role ->
                                        new TwoWireTimes(
                                                role,
                                                clockHz,
                                                block.shape().number(role.low()),
                                                block.shape().number(role.high())));
    }

    public double hertz() {
        return (double) clockHz / (low + high);
    }

    /** The slowest mode that allows the rate; the fastest there is when none does. */
    public Mode mode() {
        for (Mode mode : Mode.values()) {
            // A rate that is over by rounding of the counts is still meant for the mode.
            if (hertz() <= mode.highestHz * 1.0001) {
                return mode;
            }
        }
        return Mode.FAST_PLUS;
    }

    /** What is too short or too fast for the mode, in words. */
    public List<String> violations() {
        Mode mode = mode();
        List<String> all = new ArrayList<>();
        if (hertz() > mode.highestHz * 1.0001) {
            all.add("%s is more than the %s".formatted(Quantity.format(hertz(), "Hz"), mode.title));
        }
        if (low < count(mode.lowSeconds)) {
            all.add(
                    "the clock is low for %s, %s needs %s"
                            .formatted(
                                    seconds(low),
                                    mode.title,
                                    Quantity.format(mode.lowSeconds, "s")));
        }
        if (high < count(mode.highSeconds)) {
            all.add(
                    "the clock is high for %s, %s needs %s"
                            .formatted(
                                    seconds(high),
                                    mode.title,
                                    Quantity.format(mode.highSeconds, "s")));
        }
        return all;
    }

    private String seconds(long cycles) {
        return Quantity.format((double) cycles / clockHz, "s");
    }

    private long count(double seconds) {
        // A product such as 0.6e-6 * 100e6 is a hair above the whole number that is meant.
        return (long) Math.ceil(seconds * clockHz - 1e-6);
    }

    /** The shortest counts for a mode: both times in full, and no more than its highest rate. */
    public Counts countsFor(Mode mode) {
        long least = count(mode.highSeconds);
        long period = count(1.0 / mode.highestHz);
        long lowest = count(mode.lowSeconds);
        long both = Math.max(period, lowest + least);
        return new Counts(
                Math.max(lowest, both - both / 2), both - Math.max(lowest, both - both / 2));
    }
}
