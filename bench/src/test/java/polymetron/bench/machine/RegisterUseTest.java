package polymetron.bench.machine;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import java.util.stream.Stream;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.TestInstance;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import polymetron.output.image.ProgramImage;

/**
 * Whatever software does with the registers of a block, the bench and the hardware answer it alike: the same values, and each
 * instruction in the same cycle. More than the first two seeds with -Dpolymetron.use.seeds=N, other blocks with
 * -Dpolymetron.use.blocks=NAME,NAME.
 */
@TestInstance(TestInstance.Lifecycle.PER_CLASS)
final class RegisterUseTest {
    /** Seeds of which the ports of blocks are recorded. */
    static final int RECORDED = 2;

    private static final int SEEDS = Integer.getInteger("polymetron.use.seeds", RECORDED);
    static final int ACCESSES = 600;

    private ExerciseRun one;
    private ExerciseRun streams;

    @BeforeAll
    void build(@TempDir Path folder) throws IOException {
        one = new ExerciseRun(ExercisePlatform.elaborated(), folder.resolve("one"));
        streams = new ExerciseRun(ExercisePlatform.streams(), folder.resolve("streams"));
    }

    static Stream<String> blocks() {
        String blocks = "spi,line,ticker,port,i2c,pwm,timer,reader,probe,analog";
        return Stream.of(System.getProperty("polymetron.use.blocks", blocks).split(","));
    }

    @ParameterizedTest
    @MethodSource("blocks")
    void answersAlike(String block) throws IOException {
        ExerciseRun run = one.has(block) ? one : streams;
        for (int seed = 1; seed <= SEEDS; seed++) {
            ProgramImage image = run.randomUse(block, seed, ACCESSES);
            String onBench = run.onBench(image, List.of());
            assertThat(onBench).contains("all well, end.");
            run.watch(block);
            run.use(image, List.of());
            String said = run.simulated("verilator");
            assertThat(run.difference(image)).as("%s, seed %s", block, seed).isEmpty();
            assertThat(said).isEqualTo(onBench);
            if (seed <= RECORDED) {
                run.checkPorts(block, "use " + seed);
            }
        }
    }
}
