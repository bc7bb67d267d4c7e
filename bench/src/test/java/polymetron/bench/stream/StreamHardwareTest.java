package polymetron.bench.stream;

import static org.assertj.core.api.Assertions.assertThat;

import java.math.BigInteger;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import polymetron.elaborate.SizedStream;

/**
 * Stream blocks under random back pressure, hardware beside model: whatever source and sinks do, the same words come out in the same
 * order with the same marks, none is lost or invented, and what is offered stays until it is taken.
 */
final class StreamHardwareTest {
    private static final int WORDS = 200;

    /** Cycles from the first word in to the first word out, at most. */
    private static final int LATENCY = 10;

    @TempDir private Path folder;

    @ParameterizedTest
    @CsvSource({
        "stream:fifo:1.0, WIDTH=16 DEPTH=5 LANES=1",
        "stream:fifo:1.0, WIDTH=32 DEPTH=2 PACKETS=0",
        "stream:splitter:1.0, WIDTH=8 OUTPUTS=3",
        "stream:splitter:1.0, WIDTH=32 OUTPUTS=8",
        "stream:width-adapter:1.0, IN_WIDTH=8 OUT_WIDTH=32",
        "stream:width-adapter:1.0, IN_WIDTH=16 OUT_WIDTH=48",
        "stream:width-adapter:1.0, IN_WIDTH=64 OUT_WIDTH=16",
        "stream:width-adapter:1.0, IN_WIDTH=24 OUT_WIDTH=8",
        "stream:width-adapter:1.0, IN_WIDTH=32 OUT_WIDTH=32",
        "stream:clock-crossing:1.0, WIDTH=16 DEPTH=8"
    })
    void sameWordsWhateverTheEndsDo(String type, String settings) {
        StreamRig rig = StreamRig.of(type, settings);
        SizedStream in = rig.block().shape().stream("in").orElseThrow();
        StreamSimulation simulation = new StreamSimulation(folder, rig.block());
        for (long seed = 1; seed <= 3; seed++) {
            List<StreamWord> words = words(in.dataWidth() / 8, new Random(seed));
            Map<String, List<StreamWord>> expected = rig.through(words, seed);
            simulation.build(words, seed);
            Map<String, List<String>> made = simulation.run(0);
            assertThat(made.keySet()).isEqualTo(expected.keySet());
            expected.forEach(
                    (name, out) ->
                            assertThat(made.get(name))
                                    .as("%s %s, seed", type, name)
                                    .isEqualTo(
                                            out.stream().map(StreamHardwareTest::text).toList()));
        }
    }

    /** Where nothing holds it up a word passes in each cycle: of the wider side, and of the slower clock. */
    @ParameterizedTest
    @CsvSource({
        "stream:fifo:1.0, WIDTH=16 DEPTH=5 LANES=1, 200",
        "stream:splitter:1.0, WIDTH=32 OUTPUTS=8, 200",
        "stream:width-adapter:1.0, IN_WIDTH=8 OUT_WIDTH=32, 200",
        "stream:width-adapter:1.0, IN_WIDTH=32 OUT_WIDTH=8, 800",
        "stream:clock-crossing:1.0, WIDTH=16 DEPTH=8, 200"
    })
    void oneWordACycle(String type, String settings, int cycles) {
        StreamRig rig = StreamRig.of(type, settings);
        StreamSimulation simulation = new StreamSimulation(folder, rig.block());
        int bytes = rig.block().shape().stream("in").orElseThrow().dataWidth() / 8;
        simulation.buildFlowing(
                words(bytes, new Random(1)).stream()
                        .map(word -> new StreamWord(word.bytes(), all(bytes), false))
                        .toList());
        int taken = Integer.parseInt(simulation.run(0).get("cycles").getFirst());
        assertThat(taken).isBetween(cycles, cycles + LATENCY);
    }

    private static boolean[] all(int bytes) {
        boolean[] keep = new boolean[bytes];
        java.util.Arrays.fill(keep, true);
        return keep;
    }

    /** Packets of random lengths; in the last word the bytes behind some place do not count. */
    static List<StreamWord> words(int bytes, Random random) {
        List<StreamWord> words = new ArrayList<>();
        while (words.size() < WORDS) {
            byte[] word = new byte[bytes];
            random.nextBytes(word);
            boolean last = random.nextInt(4) == 0;
            boolean[] keep = new boolean[bytes];
            int counts = last ? 1 + random.nextInt(bytes) : bytes;
            for (int at = 0; at < counts; at++) {
                keep[at] = true;
            }
            words.add(new StreamWord(word, keep, last));
        }
        return words;
    }

    /** Mark, bytes that count, and those bytes, as the test bench writes them. */
    static String text(StreamWord word) {
        BigInteger keep = BigInteger.ZERO;
        BigInteger bytes = BigInteger.ZERO;
        for (int at = word.bytes().length - 1; at >= 0; at--) {
            keep = keep.shiftLeft(1).or(BigInteger.valueOf(word.keeps(at) ? 1 : 0));
            bytes = bytes.shiftLeft(8);
            if (word.keeps(at)) {
                bytes = bytes.or(BigInteger.valueOf(word.bytes()[at] & 0xFF));
            }
        }
        return "%s %s %s".formatted(word.last() ? 1 : 0, keep.toString(16), bytes.toString(16));
    }
}
