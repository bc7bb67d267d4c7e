package polymetron.bench.machine;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestInstance;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import polymetron.Shipped;
import polymetron.edit.Edit;
import polymetron.edit.Editor;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.output.image.ProgramImage;

/** What is outside the device: memory chips, which say in simulation what is against their times, and logic on every protocol. */
@TestInstance(TestInstance.Lifecycle.PER_CLASS)
final class BusExerciseTest {
    private ExerciseRun run;

    @BeforeAll
    void build(@TempDir Path folder) throws IOException {
        run = new ExerciseRun(ExercisePlatform.buses(), folder);
    }

    @ParameterizedTest
    @ValueSource(strings = {"external-bus-port", "external-memory-controller"})
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
    }

    /** Chips whose times are not kept say so: the rows of this controller are opened a cycle after the last one was closed. */
    @Test
    void chipsSayWhatIsAgainstTheirTimes(@TempDir Path folder) throws IOException {
        ElaboratedPlatform hasty =
                Shipped.elaborate(
                        new Editor(Shipped.LIBRARY)
                                .apply(
                                        ExercisePlatform.buses().platform(),
                                        new Edit.SetParameter("chips", "ROW_CYCLES", "2")));
        ExerciseRun wrong = new ExerciseRun(hasty, folder);
        wrong.use(wrong.program("external-memory-controller"), List.of());
        assertThat(wrong.simulated("verilator"))
                .contains("a row is opened too soon after the last one")
                .contains("a column is used too soon")
                .contains("it is refreshed too soon after the last refresh");
    }
}
