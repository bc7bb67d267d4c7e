package polymetron.clock;

import java.util.List;

/**
 * Dividers and multiplier of one PLL. Its oscillator runs at {@code input * multiplier / (steps * divider)}; each
 * output divides that by a number of its own.
 *
 * @param inputHz frequency that goes in
 * @param divider what the input is divided by before the phase detector
 * @param multiplier feedback multiplier, in steps
 * @param steps steps of the multiplier to a whole one: 1 for an integer PLL
 * @param outputs what each output divides by, in the order of the wishes
 */
public record PllSetting(
        long inputHz, int divider, int multiplier, int steps, List<Output> outputs) {

    /** An output and the error of what it gives, in millionths of the requested frequency, with its sign. */
    public record Output(PllWish wish, int divider, double errorPpm) {
        public boolean isWithinTolerance() {
            return Math.abs(errorPpm) <= wish.tolerancePpm();
        }
    }

    public double detectorHz() {
        return (double) inputHz / divider;
    }

    public double vcoHz() {
        return (double) inputHz * multiplier / ((long) steps * divider);
    }

    /** Frequency of an output in hertz. */
    public double outputHz(Output output) {
        return (double) inputHz * multiplier / ((long) steps * divider * output.divider());
    }

    /** The largest error of any output, without its sign, in millionths. */
    public double worstPpm() {
        return outputs.stream().mapToDouble(each -> Math.abs(each.errorPpm())).max().orElse(0);
    }

    public boolean isWithinTolerance() {
        return outputs.stream().allMatch(Output::isWithinTolerance);
    }
}
