package polymetron.bench.part;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import polymetron.Shipped;
import polymetron.outside.Tool;

/** What is around a board in simulation, by itself, beside the model of the bench. */
final class AroundTheBoardTest {
    /** Millionths and 4096ths that a change of the pulses may come earlier or later: two steps. */
    private static final double STEPS = 250;

    private static final double LEVELS = 2;

    @TempDir private Path folder;

    private List<String> simulate(String kind, String bench) {
        String module = "polymetron_part_" + kind;
        Tool.write(
                folder,
                module + ".v",
                Shipped.LIBRARY.hardware().ofParts().get(kind.replace('_', '-')));
        Tool.write(folder, "bench.v", bench);
        Tool.run(
                folder,
                "iverilog",
                "-g2005",
                "-Wall",
                "-o",
                "run.vvp",
                "-s",
                "bench",
                "bench.v",
                module + ".v");
        return Tool.run(folder, "vvp", "-n", "run.vvp").strip().lines().toList();
    }

    /** Drives as parts of a period of 0.37 ms, for so many milliseconds each. */
    private record Phase(int milliseconds, double[] drives) {}

    private static List<Phase> phases(Random random) {
        double[] parts = {0, 0.1, 0.25, 0.5, 0.7, 0.9, 0.9, 0.99, 1};
        List<Phase> phases = new ArrayList<>();
        for (int phase = 0; phase < 8; phase++) {
            double[] drives = new double[4];
            for (int gate = 0; gate < drives.length; gate++) {
                drives[gate] = parts[random.nextInt(parts.length)];
            }
            phases.add(new Phase(200 + random.nextInt(4000), drives));
        }
        return phases;
    }

    /** Gates, end switches and water. */
    @ParameterizedTest
    @ValueSource(longs = {1, 2})
    void aLockIsTheSameInSimulation(long seed) {
        List<Phase> phases = phases(new Random(seed));
        StringBuilder drives = new StringBuilder();
        StringBuilder schedule = new StringBuilder();
        for (int gate = 0; gate < 4; gate++) {
            drives.append(
                    """
                    integer high%1$s = 0;
                    always begin
                        if (high%1$s > 0) drives[%1$s] = 1'b1;
                        #(high%1$s);
                        if (high%1$s < 370000000) drives[%1$s] = 1'b0;
                        #(370000000 - high%1$s);
                    end
                    """
                            .formatted(gate));
        }
        double[] drive = new double[4];
        long[] ends = new long[1];
        int[] gauges = new int[2];
        double[] opening = new double[2];
        LockChamber chamber =
                new LockChamber(
                        new LockChamber.Wires() {
                            @Override
                            public double drive(int gate) {
                                return drive[gate];
                            }

                            @Override
                            public void ends(long pressed) {
                                ends[0] = pressed;
                            }

                            @Override
                            public void gauge(int channel, int steps) {
                                gauges[channel] = steps;
                            }

                            @Override
                            public void encoder(double[] parts) {
                                System.arraycopy(parts, 0, opening, 0, 2);
                            }
                        });
        List<String> expected = new ArrayList<>();
        for (Phase phase : phases) {
            for (int gate = 0; gate < 4; gate++) {
                drive[gate] = phase.drives()[gate];
                schedule.append(
                        "high%s = %s; ".formatted(gate, Math.round(370_000_000 * drive[gate])));
            }
            schedule.append(
                    "repeat (%s) #1000000000; $display(\"%%0d %%0d %%0d %%0d %%0d\", ends, gauges[11:0], gauges[23:12], opening[31:0], opening[63:32]);\n"
                            .formatted(phase.milliseconds()));
            for (int step = 0; step < phase.milliseconds(); step++) {
                chamber.step();
            }
            expected.add(
                    "%d %d %d %d %d"
                            .formatted(
                                    ends[0],
                                    gauges[0],
                                    gauges[1],
                                    Math.round(opening[0] * 1e6),
                                    Math.round(opening[1] * 1e6)));
        }
        List<String> said =
                simulate(
                        "lock_chamber",
                        """
                        `timescale 1ps/1ps
                        module bench;
                            reg [3:0] drives = 4'd0;
                            wire [7:0] ends;
                            wire [23:0] gauges;
                            wire [127:0] opening;
                            polymetron_part_lock_chamber lock (.rate(32'd1), .drives(drives), .ends(ends), .gauges(gauges), .opening(opening));
                        DRIVES    initial begin
                        SCHEDULE        $finish;
                            end
                        endmodule
                        """
                                .replace("DRIVES", drives)
                                .replace("SCHEDULE", schedule));
        assertThat(said).hasSameSizeAs(expected);
        for (int phase = 0; phase < expected.size(); phase++) {
            String[] is = said.get(phase).split(" ");
            String[] due = expected.get(phase).split(" ");
            for (int at = 0; at < is.length; at++) {
                assertThat(Double.parseDouble(is[at]))
                        .as("value %s behind phase %s: %s for %s", at, phase, said, expected)
                        .isCloseTo(
                                Double.parseDouble(due[at]),
                                within(at == 0 ? 0 : at < 3 ? LEVELS : (phase + 1) * STEPS));
            }
        }
        assertThat(expected).as("gates move and water does").doesNotHaveDuplicates();
    }

    /** Twenty times as fast: 100 steps in a second, down to half of the full scale. */
    @Test
    void aBatteryIsTheSameInSimulation() {
        int[] level = {2100};
        Battery battery = new Battery(() -> level[0], next -> level[0] = next);
        List<String> expected = new ArrayList<>();
        for (int moment = 0; moment < 8; moment++) {
            for (int step = 0; step < 2000; step++) {
                battery.step();
            }
            expected.add(Integer.toString(level[0]));
        }
        assertThat(
                        simulate(
                                "battery",
                                """
                                `timescale 1ps/1ps
                                module bench;
                                    reg [11:0] level = 12'd2100;
                                    wire [11:0] next;
                                    wire falls;
                                    polymetron_part_battery battery (.rate(32'd20), .level(level), .next(next), .falls(falls));
                                    always @(falls) if (next != 12'd0) level = next;
                                    initial begin
                                        #1000000;
                                        repeat (8) begin
                                            repeat (100) #1000000000;
                                            $display("%0d", level);
                                        end
                                        $finish;
                                    end
                                endmodule
                                """))
                .isEqualTo(expected);
        assertThat(expected.getLast()).isEqualTo("2048");
    }
}
