package polymetron.clock;

import static org.assertj.core.api.Assertions.assertThat;

import java.math.BigInteger;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import polymetron.Shipped;
import polymetron.library.Device;

/** The search against going through everything with exact fractions. */
final class PllSearchTest {
    private static Device.Plls limits(String device) {
        return Shipped.LIBRARY.device(device).orElseThrow().plls();
    }

    private static PllWish wish(String name, long hertz, double tolerancePpm) {
        return new PllWish(name, hertz, tolerancePpm);
    }

    /** A fraction without rounding; only what the comparison needs. */
    private record Fraction(BigInteger over, BigInteger under) implements Comparable<Fraction> {
        @Override
        public int compareTo(Fraction other) {
            return over.multiply(other.under).compareTo(other.over.multiply(under));
        }
    }

    private static Fraction error(long inputHz, long multiplier, long parts, long wanted) {
        BigInteger asked = BigInteger.valueOf(wanted).multiply(BigInteger.valueOf(parts));
        BigInteger made = BigInteger.valueOf(inputHz).multiply(BigInteger.valueOf(multiplier));
        return new Fraction(made.subtract(asked).abs(), asked);
    }

    /** The best of all settings, every divider of every output tried. */
    private static String exhaustive(Device.Plls limits, long inputHz, List<PllWish> wishes) {
        Fraction least = null;
        String best = "none";
        int steps = limits.multiplierSteps();
        for (int divider = 1; divider <= limits.inputDividerMaximum(); divider++) {
            double detector = (double) inputHz / divider;
            if (detector < limits.detectorMinimumHz() || detector > limits.detectorMaximumHz()) {
                continue;
            }
            for (int multiplier = limits.multiplierMinimum() * steps;
                    multiplier <= limits.multiplierMaximum() * steps;
                    multiplier++) {
                double vco = detector * multiplier / steps;
                if (vco < limits.vcoMinimumHz() || vco > limits.vcoMaximumHz()) {
                    continue;
                }
                Fraction worst = new Fraction(BigInteger.ZERO, BigInteger.ONE);
                for (PllWish wish : wishes) {
                    Fraction mine = null;
                    for (int out = 1; out <= limits.outputDividerMaximum(); out++) {
                        long parts = (long) steps * divider * out;
                        Fraction each = error(inputHz, multiplier, parts, wish.hertz());
                        mine = mine == null || each.compareTo(mine) < 0 ? each : mine;
                    }
                    worst = mine.compareTo(worst) > 0 ? mine : worst;
                }
                if (least == null || worst.compareTo(least) < 0) {
                    least = worst;
                    best = "%s %s".formatted(divider, multiplier);
                }
            }
        }
        return best;
    }

    @ParameterizedTest
    @ValueSource(strings = {"FL9-40", "TR36-60"})
    void noSettingIsBetterThanTheFirst(String device) {
        Device.Plls limits = limits(device);
        Random random = new Random(7);
        for (int round = 0; round < 15; round++) {
            long inputHz = 10_000_000L + random.nextInt(90) * 1_000_000L;
            List<PllWish> wishes = new ArrayList<>();
            for (int count = 1 + random.nextInt(limits.outputs()); count > 0; count--) {
                wishes.add(wish("w" + count, 1_000_000L + random.nextInt(200_000_000), 100));
            }
            PllSetting first = new PllSearch(limits, inputHz, wishes).candidates(1).getFirst();
            assertThat("%s %s".formatted(first.divider(), first.multiplier()))
                    .as("%s Hz to %s", inputHz, wishes)
                    .isEqualTo(exhaustive(limits, inputHz, wishes));
        }
    }

    @ParameterizedTest
    @CsvSource({
        // 50 MHz * 16 / 2 = 400 MHz; 100 MHz and 25 MHz are exact
        "FL9-40, 50000000, 100000000, 25000000, 0",
        // 12.288 MHz needs fractions; of the quotients within the limits 1150 MHz / 93.5859… is
        // none: an error stays
        "FL9-40, 50000000, 12288000, 50000000, 1",
        // an eighth of the multiplier: 100 MHz * 12.5 = 1250 MHz
        "TR36-60, 100000000, 125000000, 250000000, 0"
    })
    void whatCanBeExactIs(String device, long inputHz, long one, long two, int off) {
        PllSetting best =
                new PllSearch(
                                limits(device),
                                inputHz,
                                List.of(wish("one", one, 0), wish("two", two, 0)))
                        .candidates(1)
                        .getFirst();
        assertThat(best.worstPpm() == 0).isEqualTo(off == 0);
        if (off == 0) {
            assertThat(best.outputHz(best.outputs().getFirst())).isEqualTo((double) one);
            assertThat(best.isWithinTolerance()).isTrue();
        }
    }

    @Test
    void ofEqualErrorsTheHigherDetectorAndTheLowerOscillatorComesFirst() {
        List<PllSetting> all =
                new PllSearch(limits("FL9-40"), 50_000_000, List.of(wish("x", 25_000_000, 0)))
                        .candidates(5);
        assertThat(all.getFirst().divider()).isEqualTo(1);
        assertThat(all.getFirst().multiplier()).isEqualTo(6);
        assertThat(all).isSortedAccordingTo((a, b) -> Double.compare(a.worstPpm(), b.worstPpm()));
    }

    @Test
    void aSecondPllIsTakenWhenOneWillNotDo() {
        Device.Plls limits = limits("TR36-60");
        List<PllWish> wishes = List.of(wish("cpu", 100_000_000, 0), wish("audio", 22_579_200, 30));
        assertThat(PllPlan.of(limits, 100_000_000, wishes.subList(0, 1), 4).orElseThrow().plls())
                .hasSize(1);
        PllPlan plan = PllPlan.of(limits, 100_000_000, wishes, 4).orElseThrow();
        PllPlan one = PllPlan.of(limits, 100_000_000, wishes, 1).orElseThrow();
        assertThat(one.isWithinTolerance()).isFalse();
        assertThat(plan.isWithinTolerance()).isTrue();
        assertThat(plan.plls()).hasSize(2);
        assertThat(plan.worstPpm()).isLessThan(one.worstPpm());
        assertThat(PllPlan.of(limits, 1_000, wishes, 4)).isEmpty();
        assertThat(PllPlan.of(limits, 100_000_000, wishes, 0)).isEmpty();
    }

    /** Every way to spread three to five wishes, each part searched for itself. */
    @Test
    void noSpreadIsBetterThanThePlan() {
        Device.Plls limits = limits("TR36-60");
        Random random = new Random(3);
        for (int round = 0; round < 8; round++) {
            List<PllWish> wishes = new ArrayList<>();
            for (int count = 3 + random.nextInt(3); count > 0; count--) {
                wishes.add(wish("w" + count, 3_000_000L + random.nextInt(90_000_000), 20));
            }
            PllPlan plan = PllPlan.of(limits, 100_000_000, wishes, 3).orElseThrow();
            int ways = (int) Math.pow(3, wishes.size());
            for (int way = 0; way < ways; way++) {
                List<List<PllWish>> parts =
                        List.of(new ArrayList<>(), new ArrayList<>(), new ArrayList<>());
                int rest = way;
                for (PllWish wish : wishes) {
                    parts.get(rest % 3).add(wish);
                    rest /= 3;
                }
                List<PllSetting> settings = new ArrayList<>();
                boolean possible = true;
                for (List<PllWish> part : parts) {
                    if (!part.isEmpty()) {
                        List<PllSetting> found =
                                new PllSearch(limits, 100_000_000, part).candidates(1);
                        possible &= !found.isEmpty();
                        settings.addAll(found);
                    }
                }
                PllPlan other = new PllPlan(settings);
                if (possible && other.isWithinTolerance()) {
                    assertThat(plan.isWithinTolerance()).isTrue();
                    assertThat(plan.plls().size()).isLessThanOrEqualTo(settings.size());
                } else if (possible && !plan.isWithinTolerance()) {
                    assertThat(plan.worstPpm()).isLessThanOrEqualTo(other.worstPpm());
                }
            }
        }
    }
}
