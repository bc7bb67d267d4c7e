package polymetron.bench.machine;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestInstance;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import polymetron.bench.block.PwmModel;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.output.image.ProgramImage;

/**
 * The exercise of each block: a program that does with it what it is for, on one platform with all of them. It says the same on
 * the bench, in Icarus Verilog and in Verilator, and each of its instructions ends in the same cycle.
 */
@TestInstance(TestInstance.Lifecycle.PER_CLASS)
final class ExerciseTest {
    private final ElaboratedPlatform platform = ExercisePlatform.elaborated();

    private ExerciseRun run;

    @BeforeAll
    void build(@TempDir Path folder) throws IOException {
        run = new ExerciseRun(platform, folder);
        Path bench = folder.resolve("sim/testbench.v");
        String text = Files.readString(bench);
        int end = text.lastIndexOf("endmodule");
        Files.writeString(bench, text.substring(0, end) + MEASURE + text.substring(end));
    }

    /** Counts for how many of a thousand cycles each output of the PWM is high, once the program has requested it. */
    private static final String MEASURE =
            """
            reg asked = 1'b0;
            reg answered = 1'b0;
            integer left = 0;
            integer high0, high1, high2, high3;
            always @(said) if (said[63:0] == 64'h6d6561737572650a) asked = !asked;
            always @(posedge board.pwm.clk) begin
                if (left > 0) begin
                    left = left - 1;
                    high0 = high0 + {31'd0, pwm_value[0]};
                    high1 = high1 + {31'd0, pwm_value[1]};
                    high2 = high2 + {31'd0, pwm_value[2]};
                    high3 = high3 + {31'd0, pwm_value[3]};
                    if (left == 0) $display("high %0d %0d %0d %0d", high0, high1, high2, high3);
                end
                else if (asked != answered) begin
                    answered = asked;
                    left = 1000;
                    high0 = 0; high1 = 0; high2 = 0; high3 = 0;
                end
            end
            """;

    /** What the model of the PWM says to each word of its exercise. */
    @Test
    void pulsesAreAsLongOnTheBench() throws IOException {
        ProgramImage image = run.program("pwm");
        Machine machine = new Machine(platform);
        machine.load(image);
        PwmModel pwm = (PwmModel) machine.model("pwm").orElseThrow();
        StringBuilder expected = new StringBuilder();
        for (int word = 0; word < 4; word++) {
            BuiltProgram.saysUntil(machine, "measure\n", 1);
            machine.run(700);
            StringBuilder line = new StringBuilder("high");
            for (int channel = 0; channel < 4; channel++) {
                line.append(' ').append(Math.round(1000 * pwm.part(channel)));
            }
            expected.append(line).append('\n');
        }
        assertThat(expected.toString().lines().toList())
                .containsExactly(
                        "high 0 200 500 1000",
                        "high 0 800 500 20",
                        "high 0 1000 1000 40",
                        "high 0 0 0 0");
        run.watch("pwm");
        run.use(image, List.of());
        for (String simulator : List.of("iverilog", "verilator")) {
            String said = run.whole(simulator);
            assertThat(said.lines().filter(line -> line.startsWith("high")).toList())
                    .isEqualTo(expected.toString().lines().toList());
            run.checkPorts("pwm", "exercise");
        }
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "spi-controller",
                "i2c-controller",
                "watchdog",
                "uart",
                "general-timer",
                "machine-timer",
                "gpio"
            })
    void saysTheSameEverywhere(String block) throws IOException {
        ProgramImage image = run.program(block);
        String onBench = run.onBench(image, List.of());
        assertThat(onBench).contains("all well, end.");
        run.watch(run.exercised(block));
        run.use(image, List.of());
        for (String simulator : run.simulators()) {
            assertThat(run.simulated(simulator)).isEqualTo(onBench);
            run.checkPorts(run.exercised(block), "exercise");
        }
        // What is in another clock domain is seen some cycles earlier or later.
        if (!block.equals("watchdog")) {
            assertThat(run.difference(image)).isEmpty();
        }
    }
}
