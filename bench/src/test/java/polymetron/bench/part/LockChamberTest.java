package polymetron.bench.part;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

final class LockChamberTest {
    private final double[] drives = {0.5, 0.5, 0.5, 0.5};
    private final List<String> seen = new ArrayList<>();
    private long ends;
    private final int[] gauges = new int[2];

    private final LockChamber chamber =
            new LockChamber(
                    new LockChamber.Wires() {
                        @Override
                        public double drive(int gate) {
                            return drives[gate];
                        }

                        @Override
                        public void ends(long pressed) {
                            ends = pressed;
                            seen.add(Long.toHexString(pressed));
                        }

                        @Override
                        public void gauge(int channel, int steps) {
                            gauges[channel] = steps;
                            seen.add(channel + "=" + steps);
                        }

                        @Override
                        public void encoder(double[] opening) {
                            seen.add(opening[0] + " " + opening[1]);
                        }
                    });

    private void run(int milliseconds) {
        for (int step = 0; step < milliseconds; step++) {
            chamber.step();
        }
    }

    private double reading(String name) {
        return chamber.readings().stream()
                .filter(each -> each.name().equals(name))
                .findFirst()
                .orElseThrow()
                .value();
    }

    @Test
    void gatesTakeEightSecondsAtFullSpeed() {
        run(1);
        assertThat(ends).isEqualTo(0b1010_1010);
        drives[2] = 0.9;
        run(7999);
        assertThat(ends).isEqualTo(0b1000_1010);
        run(1);
        assertThat(ends).isEqualTo(0b1001_1010);
        drives[2] = 0;
        run(100);
        assertThat(reading("gate 2 open")).as("a drive without pulses stands").isEqualTo(100);
        drives[2] = 0.1;
        run(8000);
        assertThat(ends).isEqualTo(0b1010_1010);
    }

    @Test
    void waterFindsItsLevel() {
        run(15_000);
        assertThat(reading("chamber")).as("sluices").isEqualTo(4.0);
        assertThat(gauges[1]).isEqualTo(gauges[0]).isEqualTo(4 * 4095 / 5);
        drives[2] = 0.9;
        drives[3] = 0.9;
        run(8000);
        double open = reading("chamber");
        // dh/dt = -(h - h1) / T for a time constant T, so 63 % of the rest in another T.
        run(4000);
        assertThat((reading("chamber") - 1) / (open - 1)).isBetween(0.36, 0.375);
        run(60_000);
        assertThat(reading("chamber")).isBetween(1.0, 1.01);
    }

    /** Whatever the drives do: gates are between their ends, water between the two waters, and the same happens again. */
    @ParameterizedTest
    @ValueSource(longs = {1, 2, 3, 4, 5, 6, 7, 8})
    void staysInItsBounds(long seed) {
        List<Double> widths = new Random(seed).doubles(40).boxed().toList();
        List<String> first = story(widths);
        chamber.reset();
        assertThat(story(widths)).isEqualTo(first);
    }

    private List<String> story(List<Double> widths) {
        seen.clear();
        for (int at = 0; at < widths.size(); at++) {
            drives[at % 4] = widths.get(at);
            run(997);
            assertThat(reading("chamber")).isBetween(1.0, 4.0);
            for (int gate = 0; gate < 4; gate++) {
                double open = reading("gate %s open".formatted(gate));
                assertThat(open).isBetween(0.0, 100.0);
                assertThat((ends >> 2 * gate & 1) != 0).isEqualTo(open == 100);
                assertThat((ends >> 2 * gate + 1 & 1) != 0).isEqualTo(open == 0);
            }
        }
        drives[0] = drives[1] = drives[2] = drives[3] = 0.5;
        return List.copyOf(seen);
    }
}
