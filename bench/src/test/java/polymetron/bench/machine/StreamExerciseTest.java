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
import polymetron.bench.machine.ExerciseRun.Moved;
import polymetron.output.image.ProgramImage;

/** Exercises of the blocks that move data by themselves, and of those that measure what is outside: the same words everywhere. */
@TestInstance(TestInstance.Lifecycle.PER_CLASS)
final class StreamExerciseTest {
    private ExerciseRun run;

    @BeforeAll
    void build(@TempDir Path folder) throws IOException {
        run = new ExerciseRun(ExercisePlatform.streams(), folder);
    }

    /** All, or those that -Dpolymetron.exercise names. */
    static Stream<String> blocks() {
        String only = System.getProperty("polymetron.exercise");
        return only == null ? BLOCKS.stream() : Stream.of(only.split(","));
    }

    private static final List<String> BLOCKS =
            List.of(
                    "dma",
                    "ring-writer",
                    "decimating-filter",
                    "fir-filter",
                    "threshold-trigger",
                    "event-counter",
                    "converter-reader",
                    "signal-probe",
                    "pps-timestamp",
                    "analog-monitor",
                    "flash-controller");

    private static final List<String> ALONE = List.of("converter-reader", "signal-probe");

    @ParameterizedTest
    @MethodSource("blocks")
    void saysTheSameEverywhere(String block) throws IOException {
        ProgramImage image = run.program(block);
        List<Moved> world = OutsideOfExercises.of(block);
        String onBench = run.onBench(image, world);
        assertThat(onBench).contains("all well, end.");
        run.use(image, world);
        run.watch(run.exercised(block));
        for (String simulator : run.simulators()) {
            assertThat(run.simulated(simulator)).isEqualTo(onBench);
            run.checkPorts(run.exercised(block), "exercise");
        }
        run.watchNothing();
        // Who has a bus at once with others is another matter, and what comes from outside is not
        // exact to the cycle.
        if (ALONE.contains(block)) {
            assertThat(run.difference(image)).isEmpty();
        }
    }
}
