package polymetron.clock;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import polymetron.library.Device;

/**
 * Settings of one PLL for wanted frequencies.
 *
 * <p>For each input divider and multiplier that the device allows, the oscillator's frequency is fixed, and the best
 * divider of each output follows from it alone: one of the two whole numbers around the quotient. So all settings are
 * looked at in {@code dividers * multipliers * wishes} steps, and the outcome is the best there is: least worst
 * relative error, then the higher phase detector frequency, then the lower oscillator frequency.
 *
 * <p>Errors are worked out as one correctly rounded division of whole numbers below 2^53, so equal ratios give equal
 * errors, and an exact setting has the error 0.
 */
public final class PllSearch {
    private final Device.Plls limits;
    private final long inputHz;
    private final List<PllWish> wishes;
    private final List<Base> bases;

    /** Input divider and multiplier that keep detector and oscillator within the limits. */
    private record Base(int divider, int multiplier) {}

    /**
     * @param inputHz frequency of the clock that goes in
     */
    public PllSearch(Device.Plls limits, long inputHz, List<PllWish> wishes) {
        this.limits = limits;
        this.inputHz = inputHz;
        this.wishes = List.copyOf(wishes);
        this.bases = bases();
    }

    /** Why the device's PLLs can do nothing with that input; empty when they can. */
    public Optional<String> obstacle() {
        if (inputHz < limits.inputMinimumHz() || inputHz > limits.inputMaximumHz()) {
            return Optional.of(
                    "the input is %s Hz; the device's PLLs take %s to %s Hz"
                            .formatted(inputHz, limits.inputMinimumHz(), limits.inputMaximumHz()));
        }
        return bases.isEmpty()
                ? Optional.of("no divider and multiplier bring the oscillator into its range")
                : Optional.empty();
    }

    private List<Base> bases() {
        List<Base> all = new ArrayList<>();
        if (inputHz < limits.inputMinimumHz() || inputHz > limits.inputMaximumHz()) {
            return all;
        }
        int steps = limits.multiplierSteps();
        for (int divider = 1; divider <= limits.inputDividerMaximum(); divider++) {
            if (inputHz > limits.detectorMaximumHz() * divider
                    || inputHz < limits.detectorMinimumHz() * divider) {
                continue;
            }
            for (int multiplier = limits.multiplierMinimum() * steps;
                    multiplier <= limits.multiplierMaximum() * steps;
                    multiplier++) {
                long product = inputHz * multiplier;
                long parts = (long) steps * divider;
                if (product >= limits.vcoMinimumHz() * parts
                        && product <= limits.vcoMaximumHz() * parts) {
                    all.add(new Base(divider, multiplier));
                }
            }
        }
        return all;
    }

    /** Relative error, with its sign, of an output that divides by {@code divider}. */
    private double error(Base base, PllWish wish, int divider) {
        long parts = (long) limits.multiplierSteps() * base.divider() * divider;
        return (double) (inputHz * base.multiplier() - wish.hertz() * parts)
                / ((double) wish.hertz() * parts);
    }

    private int bestDivider(Base base, PllWish wish) {
        long parts = (long) limits.multiplierSteps() * base.divider() * wish.hertz();
        long below = inputHz * base.multiplier() / parts;
        int low = Math.clamp(below, 1, limits.outputDividerMaximum());
        int high = Math.clamp(below + 1, 1, limits.outputDividerMaximum());
        return Math.abs(error(base, wish, high)) < Math.abs(error(base, wish, low)) ? high : low;
    }

    /** The least error of each wish with each base: {@code errors[base][wish]}, without sign. */
    double[][] errors() {
        double[][] errors = new double[bases.size()][wishes.size()];
        for (int at = 0; at < errors.length; at++) {
            for (int wish = 0; wish < wishes.size(); wish++) {
                Base base = bases.get(at);
                PllWish asked = wishes.get(wish);
                errors[at][wish] = Math.abs(error(base, asked, bestDivider(base, asked)));
            }
        }
        return errors;
    }

    /** The setting of a base for some of the wishes, by their numbers. */
    PllSetting setting(int base, List<Integer> numbers) {
        Base chosen = bases.get(base);
        List<PllSetting.Output> outputs = new ArrayList<>();
        for (int number : numbers) {
            PllWish wish = wishes.get(number);
            int divider = bestDivider(chosen, wish);
            outputs.add(new PllSetting.Output(wish, divider, error(chosen, wish, divider) * 1e6));
        }
        return new PllSetting(
                inputHz,
                chosen.divider(),
                chosen.multiplier(),
                limits.multiplierSteps(),
                List.copyOf(outputs));
    }

    /** Which of two bases with the same error is better: higher detector frequency, then lower oscillator. */
    Comparator<Integer> preference() {
        return Comparator.<Integer>comparingInt(at -> bases.get(at).divider())
                .thenComparingInt(at -> bases.get(at).multiplier());
    }

    /**
     * The best settings with all wishes on one PLL, best first; empty when there is none or there are more wishes than
     * outputs.
     */
    public List<PllSetting> candidates(int most) {
        if (wishes.isEmpty() || wishes.size() > limits.outputs()) {
            return List.of();
        }
        double[][] errors = errors();
        double[] worst = new double[errors.length];
        List<Integer> order = new ArrayList<>();
        List<Integer> all = new ArrayList<>();
        for (int wish = 0; wish < wishes.size(); wish++) {
            all.add(wish);
        }
        for (int at = 0; at < errors.length; at++) {
            for (double each : errors[at]) {
                worst[at] = Math.max(worst[at], each);
            }
            order.add(at);
        }
        order.sort(
                Comparator.<Integer>comparingDouble(at -> worst[at]).thenComparing(preference()));
        return order.stream().limit(most).map(at -> setting(at, all)).toList();
    }
}
