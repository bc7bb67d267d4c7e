package polymetron.bench.behaviour;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.util.Map;
import java.util.TreeMap;
import java.util.stream.Stream;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.MethodSource;
import polymetron.Shipped;
import polymetron.edit.Edit;
import polymetron.edit.Editor;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.library.BlockType;
import polymetron.library.Vlnv;
import polymetron.outside.Tool;
import polymetron.platform.Platform;

/** Modules by themselves, cycle by cycle, beside what they have to do by their description. */
final class BehaviourTest {
    private static final int CYCLES = 10_000;

    @TempDir private Path folder;

    static Stream<Arguments> modules() {
        return Stream.of(
                Arguments.of("event-counter", Map.of("WIDTH", 8L, "GATE", 7L)),
                Arguments.of("event-counter", Map.of("WIDTH", 8L, "GATE", 100_000_000L)),
                Arguments.of("pps-timestamp", Map.of("NOMINAL", 10_000L, "WINDOW", 200L)),
                Arguments.of("pps-timestamp", Map.of("NOMINAL", 100_000_000L, "WINDOW", 20_000L)),
                Arguments.of("pps-timestamp", Map.of("NOMINAL", 400L, "WINDOW", 3L)),
                Arguments.of("analog-monitor", Map.of("CHANNELS", 1L)),
                Arguments.of("analog-monitor", Map.of("CHANNELS", 5L)),
                Arguments.of("signal-probe", probe(32, 32, 6, 1, 32)),
                Arguments.of("signal-probe", probe(16, 8, 0, 0, 16)),
                Arguments.of("signal-probe", probe(48, 16, 15, 0, 32)),
                Arguments.of("signal-probe", probe(8, 4, 1, 2, 8)),
                Arguments.of("converter-reader", reader(3, 24, 4, 1)),
                Arguments.of("converter-reader", reader(1, 16, 2, 0)),
                Arguments.of("converter-reader", reader(2, 32, 6, 3)),
                Arguments.of("i2c-controller", Map.of("FILTER", 5L)),
                Arguments.of("i2c-controller", Map.of("FILTER", 1L)),
                Arguments.of("uart", Map.of()),
                Arguments.of("ring-writer", Map.of("WIDTH", 32L, "BURST", 4L)),
                Arguments.of("ring-writer", Map.of("WIDTH", 64L, "BURST", 16L)));
    }

    private static Map<String, Long> probe(
            long width, long depth, long before, long trigger, long compared) {
        return Map.of(
                "WIDTH",
                width,
                "DEPTH",
                depth,
                "BEFORE",
                before,
                "TRIGGER",
                trigger,
                "COMPARED",
                compared);
    }

    private static Vlnv newest(String block) {
        return Shipped.LIBRARY.types().stream()
                .map(BlockType::identity)
                .filter(each -> each.name().equals(block))
                .max(Vlnv.BY_VERSION)
                .orElseThrow();
    }

    private static Map<String, Long> reader(long channels, long sample, long divider, long mode) {
        return Map.of("CHANNELS", channels, "SAMPLE", sample, "DIVIDER", divider, "MODE", mode);
    }

    @ParameterizedTest
    @MethodSource("modules")
    void doesWhatItsDescriptionSays(String block, Map<String, Long> parameters) {
        assertThat(alone(block, parameters, Behaviours.of(block, parameters).orElseThrow()))
                .isEmpty();
    }

    @ParameterizedTest
    @CsvSource({
        "fir-filter, SAMPLE=16 CHANNELS=3 TAPS=5 MULTIPLIERS=2",
        "fir-filter, SAMPLE=24 CHANNELS=1 TAPS=4 MULTIPLIERS=1 SHIFT=0",
        "fir-filter, SAMPLE=32 CHANNELS=2 TAPS=7 MULTIPLIERS=7 INSIDE=45",
        "decimating-filter, SAMPLE=16 CHANNELS=3 RATE=8 ORDER=3",
        "decimating-filter, SAMPLE=32 CHANNELS=1 RATE=5 ORDER=1",
        "decimating-filter, SAMPLE=24 CHANNELS=4 RATE=16 ORDER=5",
        "threshold-trigger, SAMPLE=16 CHANNELS=3 SHORT=2 LONG=16",
        "threshold-trigger, SAMPLE=32 CHANNELS=1 SHORT=16 LONG=64",
        "dma, RING=1 FIFO=16 BURST=4",
        "dma, RING=1 FIFO=16 BURST=4 LENGTH=32",
        "dma, RING=1 FIFO=16 BURST=4 LENGTH=8",
        "dma, RING=1 FIFO=64 BURST=1 WIDTH=64",
        "dma, RING=1 FIFO=64 BURST=16 WIDTH=64",
        "dma, RING=1 FIFO=256 BURST=256 WIDTH=64"
    })
    void worksAsOnTheBench(String type, String settings) {
        Map<String, String> chosen = new TreeMap<>();
        for (String each : settings.split(" ")) {
            chosen.put(each.split("=")[0], each.split("=")[1]);
        }
        ElaboratedPlatform platform =
                Shipped.elaborate(
                        new Editor(Shipped.LIBRARY)
                                .apply(
                                        Platform.empty("Rig", Shipped.BOARD),
                                        new Edit.AddBlock("rig", newest(type), chosen)));
        ElaboratedBlock block = platform.block("rig").orElseThrow();
        Map<String, Long> parameters = new TreeMap<>();
        block.type()
                .hardware()
                .parameters()
                .forEach((name, value) -> parameters.put(name, block.shape().number(value, 0)));
        assertThat(alone(type, parameters, Behaviours.of(platform, block, parameters).get()))
                .isEmpty();
    }

    private String alone(String block, Map<String, Long> parameters, Behaviour behaviour) {
        Shipped.LIBRARY.hardware().common().forEach((name, text) -> Tool.write(folder, name, text));
        Shipped.LIBRARY
                .hardware()
                .of(newest(block))
                .forEach((name, text) -> Tool.write(folder, name, text));
        return BehaviourRig.of(folder, parameters, behaviour, "", CYCLES, 1).wrong(0);
    }
}
