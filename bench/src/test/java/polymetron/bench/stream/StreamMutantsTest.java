package polymetron.bench.stream;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.TreeMap;
import java.util.stream.Stream;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import polymetron.bench.machine.ExerciseSize;
import polymetron.bench.mutant.EvidenceFile;
import polymetron.bench.mutant.Judgement;
import polymetron.bench.mutant.Mutants;
import polymetron.elaborate.ElaboratedBlock;

/**
 * Whether random back pressure ({@link StreamHardwareTest}) would notice stream hardware that is wrong. Properties as of
 * {@code ExerciseMutantsTest}.
 */
final class StreamMutantsTest {
    private static final int COUNT = Integer.getInteger("polymetron.mutants", 20);
    private static final double NOTICED =
            Double.parseDouble(System.getProperty("polymetron.mutants.noticed", "0.9"));
    private static final int SEEDS = 4;

    private static final Map<String, String> SETTINGS =
            new TreeMap<>(
                    Map.of(
                            "fifo", "WIDTH=16 DEPTH=5 LANES=1",
                            "splitter", "WIDTH=8 OUTPUTS=8",
                            "width-adapter", "IN_WIDTH=16 OUT_WIDTH=48",
                            "clock-crossing", "WIDTH=16 DEPTH=8"));

    @TempDir private Path folder;

    /** One, or those that -Dpolymetron.mutants.elements names. */
    static Stream<String> elements() {
        return Stream.of(System.getProperty("polymetron.mutants.elements", "fifo").split(","));
    }

    @ParameterizedTest
    @MethodSource("elements")
    void mostChangesAreNoticed(String element) throws IOException {
        StreamRig rig = StreamRig.of("stream:%s:1.0".formatted(element), SETTINGS.get(element));
        ElaboratedBlock block = rig.block();
        Map<String, Long> given = new LinkedHashMap<>();
        block.type()
                .hardware()
                .parameters()
                .forEach((name, value) -> given.put(name, block.shape().number(value, 0)));
        int bytes = block.shape().stream("in").orElseThrow().dataWidth() / 8;
        List<StreamSimulation> simulations = new ArrayList<>();
        List<Map<String, List<String>>> expected = new ArrayList<>();
        Mutants mutants = null;
        for (int seed = 1; seed <= SEEDS; seed++) {
            Path here = Files.createDirectories(folder.resolve("seed" + seed));
            StreamSimulation simulation = new StreamSimulation(here, block);
            mutants = Mutants.put(here, block.type().hardware().module(), given, COUNT, 1);
            List<StreamWord> words = StreamHardwareTest.words(bytes, new Random(seed));
            simulation.build(words, seed);
            simulations.add(simulation);
            Map<String, List<String>> out = new TreeMap<>();
            rig.through(words, seed)
                    .forEach(
                            (name, each) ->
                                    out.put(
                                            name,
                                            each.stream().map(StreamHardwareTest::text).toList()));
            expected.add(out);
            assertThat(simulation.run(0)).isEqualTo(out);
        }
        Path here = Files.createDirectories(folder.resolve("flowing"));
        StreamSimulation flowing = new StreamSimulation(here, block);
        mutants = Mutants.put(here, block.type().hardware().module(), given, COUNT, 1);
        flowing.buildFlowing(StreamHardwareTest.words(bytes, new Random(1)));
        simulations.add(flowing);
        expected.add(flowing.run(0));
        Judgement judgement =
                Judgement.of(
                        mutants,
                        number -> {
                            for (int at = 0; at < simulations.size(); at++) {
                                if (!simulations.get(at).run(number).equals(expected.get(at))) {
                                    return true;
                                }
                            }
                            return false;
                        });
        System.out.println(judgement.text(element));
        assertThat(judgement.part()).isGreaterThanOrEqualTo(NOTICED);
        EvidenceFile.write(
                block.type(),
                judgement,
                List.of("random words under random back pressure", "the cycles of a free flow"),
                ExerciseSize.of(element, folder.resolve("size")));
    }
}
