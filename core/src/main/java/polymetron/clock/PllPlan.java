package polymetron.clock;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import polymetron.library.Device;

/**
 * How wanted frequencies are spread over PLLs: over as few as bring all within their tolerances, and where no number
 * does, in the way with the least worst error. Among ways with equally many PLLs that do, the least worst error, then
 * the way that keeps the first wishes together.
 *
 * <p>The wishes' partitions are gone through as restricted growth strings (Knuth, The Art of Computer Programming 4A,
 * 7.2.1.5); the best setting of a subset is looked up once. With {@code n} wishes that is at most the n-th Bell number
 * of partitions over 2^n subsets.
 *
 * @param plls one setting for each PLL, in the order of their first wishes
 */
public record PllPlan(List<PllSetting> plls) {
    /** More wishes are refused: the partitions grow too many, and no device has as many outputs. */
    public static final int MOST_WISHES = 8;

    public double worstPpm() {
        return plls.stream().mapToDouble(PllSetting::worstPpm).max().orElse(0);
    }

    public boolean isWithinTolerance() {
        return plls.stream().allMatch(PllSetting::isWithinTolerance);
    }

    /**
     * @param free PLLs that can be used
     * @return empty when no PLL can make anything of the input, or the wishes need more outputs than there are
     * @throws IllegalArgumentException when there are more than {@link #MOST_WISHES} wishes
     */
    public static Optional<PllPlan> of(
            Device.Plls limits, long inputHz, List<PllWish> wishes, int free) {
        if (wishes.size() > MOST_WISHES) {
            throw new IllegalArgumentException(
                    "at most %s clocks are planned at once".formatted(MOST_WISHES));
        }
        PllSearch search = new PllSearch(limits, inputHz, wishes);
        if (wishes.isEmpty() || search.obstacle().isPresent()) {
            return Optional.empty();
        }
        return new Planner(search, limits, wishes, free).plan();
    }

    private static final class Planner {
        private final PllSearch search;
        private final int outputs;
        private final List<PllWish> wishes;
        private final int free;
        private final double[][] errors;
        private final Map<Integer, Integer> bestBase = new HashMap<>();

        private int[] best;
        private double bestWorst;
        private int bestCount;
        private boolean bestWithin;

        private Planner(PllSearch search, Device.Plls limits, List<PllWish> wishes, int free) {
            this.search = search;
            this.outputs = limits.outputs();
            this.wishes = wishes;
            this.free = free;
            this.errors = search.errors();
        }

        private Optional<PllPlan> plan() {
            grow(new int[wishes.size()], 0, 0);
            if (best == null) {
                return Optional.empty();
            }
            List<PllSetting> settings = new ArrayList<>();
            for (int part = 0; part < bestCount; part++) {
                int subset = subset(best, part);
                settings.add(search.setting(baseFor(subset), numbers(subset)));
            }
            return Optional.of(new PllPlan(List.copyOf(settings)));
        }

        /** Goes through all partitions; {@code parts[wish]} is the PLL of a wish. */
        private void grow(int[] parts, int at, int count) {
            if (at == parts.length) {
                judge(parts, count);
                return;
            }
            for (int part = 0; part <= count && part < free; part++) {
                parts[at] = part;
                grow(parts, at + 1, Math.max(count, part + 1));
            }
        }

        private void judge(int[] parts, int count) {
            double worst = 0;
            boolean within = true;
            for (int part = 0; part < count; part++) {
                int subset = subset(parts, part);
                if (Integer.bitCount(subset) > outputs) {
                    return;
                }
                double[] row = errors[baseFor(subset)];
                for (int number : numbers(subset)) {
                    worst = Math.max(worst, row[number]);
                    within &= row[number] * 1e6 <= wishes.get(number).tolerancePpm();
                }
            }
            boolean better =
                    best == null
                            || (within && !bestWithin)
                            || (within == bestWithin
                                    && (within && count != bestCount
                                            ? count < bestCount
                                            : worst < bestWorst
                                                    || (worst == bestWorst && count < bestCount)));
            if (better) {
                best = parts.clone();
                bestWorst = worst;
                bestCount = count;
                bestWithin = within;
            }
        }

        /** The best base for a subset of the wishes: least worst error, then the search's preference. */
        private int baseFor(int subset) {
            Integer known = bestBase.get(subset);
            if (known != null) {
                return known;
            }
            List<Integer> numbers = numbers(subset);
            int found = 0;
            double least = Double.MAX_VALUE;
            for (int base = 0; base < errors.length; base++) {
                double worst = 0;
                for (int number : numbers) {
                    worst = Math.max(worst, errors[base][number]);
                }
                // Bases are in the order of preference, so the first of equals stays.
                if (worst < least) {
                    least = worst;
                    found = base;
                }
            }
            bestBase.put(subset, found);
            return found;
        }

        private static int subset(int[] parts, int part) {
            int subset = 0;
            for (int at = 0; at < parts.length; at++) {
                subset |= parts[at] == part ? 1 << at : 0;
            }
            return subset;
        }

        private static List<Integer> numbers(int subset) {
            List<Integer> numbers = new ArrayList<>();
            for (int at = 0; at < Integer.SIZE; at++) {
                if ((subset & 1 << at) != 0) {
                    numbers.add(at);
                }
            }
            return numbers;
        }
    }
}
