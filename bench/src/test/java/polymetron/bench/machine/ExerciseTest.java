package polymetron.bench.machine;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.TestInstance;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.output.HandoffFile;
import polymetron.output.hardware.Hardware;
import polymetron.output.image.ImageFiles;
import polymetron.output.image.ProgramImage;
import polymetron.outside.StepByStep;
import polymetron.outside.Tool;

/**
 * The exercise of each block: a program that does with it what it is for, on one platform with all of them. It says the same on
 * the bench, in Icarus Verilog and in Verilator, and each of its instructions ends in the same cycle.
 */
@TestInstance(TestInstance.Lifecycle.PER_CLASS)
final class ExerciseTest {
    private Path folder;

    private ElaboratedPlatform platform;

    @BeforeAll
    void build(@TempDir Path made) throws IOException {
        folder = made;
        platform = ExercisePlatform.elaborated();
        Hardware hardware = Hardware.of(platform);
        assertThat(hardware.notBuilt()).isEmpty();
        for (HandoffFile file : hardware.files()) {
            Tool.write(folder, file.path(), file.bytes());
        }
        StepByStep.watch(folder, "cpu");
    }

    @ParameterizedTest
    @ValueSource(strings = {"spi-controller", "watchdog"})
    void saysTheSameEverywhere(String block) throws IOException {
        ProgramImage image = ExercisePlatform.program(platform, folder.resolve(block), block);
        Machine machine = new Machine(platform);
        machine.load(image);
        String onBench = BuiltProgram.saysUntil(machine, "end.", 2);
        assertThat(onBench).contains("all well, end.");
        System.out.printf("exercise of %s: %s cycles%n", block, machine.cycles());
        Tool.write(folder, "exercise.hex", ImageFiles.of(image, "exercise").getFirst().bytes());
        for (String simulator : List.of("iverilog", "verilator")) {
            String said =
                    Tool.run(
                            folder,
                            "make -s -C sim run SIM=%s IMAGE=exercise.hex UNTIL=end. CYCLES=3000000"
                                    .formatted(simulator)
                                    .split(" "));
            assertThat(said.replaceFirst("(?s)\\R- testbench.v.*", "").strip())
                    .isEqualTo(onBench.strip());
        }
        machine.load(image);
        // What is in another clock domain is seen some cycles earlier or later.
        if (!block.equals("watchdog")) {
            assertThat(StepByStep.difference(folder, machine, 0)).isEmpty();
        }
    }
}
