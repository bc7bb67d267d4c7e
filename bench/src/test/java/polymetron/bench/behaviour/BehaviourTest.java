package polymetron.bench.behaviour;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.util.Map;
import java.util.stream.Stream;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.MethodSource;
import polymetron.Shipped;
import polymetron.library.BlockType;
import polymetron.library.Vlnv;
import polymetron.outside.Tool;

/** Modules by themselves, cycle by cycle, beside what they have to do by their description. */
final class BehaviourTest {
    private static final int CYCLES = 20_000;

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

    @ParameterizedTest
    @MethodSource("modules")
    void doesWhatItsDescriptionSays(String block, Map<String, Long> parameters) {
        Shipped.LIBRARY.hardware().common().forEach((name, text) -> Tool.write(folder, name, text));
        Shipped.LIBRARY
                .hardware()
                .of(newest(block))
                .forEach((name, text) -> Tool.write(folder, name, text));
        BehaviourRig rig =
                BehaviourRig.of(
                        folder,
                        parameters,
                        Behaviours.of(block, parameters).orElseThrow(),
                        "",
                        CYCLES,
                        1);
        assertThat(rig.wrong(0)).isEmpty();
    }
}
