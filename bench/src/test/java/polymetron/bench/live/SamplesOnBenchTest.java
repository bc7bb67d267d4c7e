package polymetron.bench.live;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.charset.StandardCharsets;
import java.util.List;
import org.junit.jupiter.api.Test;
import polymetron.Shipped;
import polymetron.bench.hart.MemoryShare;
import polymetron.bench.machine.BenchException;
import polymetron.bench.machine.Machine;
import polymetron.platform.PlatformDocument;
import polymetron.software.SoftwareView;

/** Samples of a table at the large station's converter, through what the outside of a bench offers. */
final class SamplesOnBenchTest {
    @Test
    void aTableIsOneOfTheSignalsOnceItWasRead() {
        Machine machine =
                new Machine(
                        SoftwareView.of(
                                Shipped.elaborate(
                                        PlatformDocument.read(
                                                "highland-station.json",
                                                new String(
                                                        Shipped.file("demo/highland-station.json"),
                                                        StandardCharsets.UTF_8)))),
                        MemoryShare.ample());
        OutsideOfBench outside = new OutsideOfBench(machine);
        Outside.Signal before = outside.state().signals().getFirst();
        assertThat(before.shapes()).doesNotContain("table");
        assertThat(before.channels()).isEqualTo(3);
        assertThatThrownBy(() -> outside.setSignal(before.part(), "table"))
                .isInstanceOf(BenchException.class)
                .hasMessageContaining("one of recording, quiet");

        outside.setSamples(before.part(), "1,2,3\n4,5,6\n");
        Outside.Signal after = outside.state().signals().getFirst();
        assertThat(after.shape()).isEqualTo("table");
        assertThat(after.shapes()).contains("table");
        var signal = machine.signal(before.part()).orElseThrow();
        assertThat(List.of(signal.next(), signal.next(), signal.next()))
                .usingRecursiveComparison()
                .isEqualTo(List.of(new int[] {1, 2, 3}, new int[] {4, 5, 6}, new int[] {1, 2, 3}));

        // A wrong table changes nothing.
        assertThatThrownBy(() -> outside.setSamples(before.part(), "1,2\n"))
                .isInstanceOf(BenchException.class)
                .hasMessageContaining("line 1 has 2 values");
        assertThat(outside.state().signals().getFirst().shape()).isEqualTo("table");
        assertThatThrownBy(() -> outside.setSamples("lamps", "1,2,3"))
                .hasMessageContaining("no converter on lamps");
    }
}
