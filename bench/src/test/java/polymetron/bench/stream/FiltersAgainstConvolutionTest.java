package polymetron.bench.stream;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.apache.commons.math3.util.MathArrays;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/**
 * The FIR filter and the decimating filter beside convolutions of Apache Commons Math: a FIR filter is the convolution of samples
 * and coefficients, a decimating filter that of samples and a moving average as many times as its order (Hogenauer 1981), of which
 * every RATE-th value is kept. Numbers are small enough that doubles are exact.
 */
final class FiltersAgainstConvolutionTest {
    private static final int ROUNDS = 120;

    @ParameterizedTest
    @ValueSource(longs = {1, 2, 3, 4, 5, 6})
    void firFilter(long seed) {
        Random random = new Random(seed);
        int channels = 1 + random.nextInt(4);
        int taps = 2 + random.nextInt(9);
        int shift = random.nextInt(10);
        int[] coefficients = random.ints(taps, -500, 500).toArray();
        StreamRig rig =
                StreamRig.of(
                        "stream:fir-filter:1.0",
                        Map.of(
                                "SAMPLE",
                                "16",
                                "CHANNELS",
                                "" + channels,
                                "TAPS",
                                "" + taps,
                                "COEFFICIENT",
                                "12",
                                "COEFFICIENTS",
                                text(coefficients),
                                "INSIDE",
                                "40",
                                "SHIFT",
                                "" + shift,
                                "MULTIPLIERS",
                                "" + (1 + random.nextInt(taps))));
        int[][] samples = samples(random, channels);
        List<StreamWord> out = rig.through(words(samples), seed).get("out");
        double[] factors = Arrays.stream(coefficients).asDoubleStream().toArray();
        List<Integer> expected = new ArrayList<>();
        double[][] sums = new double[channels][];
        for (int channel = 0; channel < channels; channel++) {
            sums[channel] = MathArrays.convolve(of(samples, channel), factors);
        }
        for (int round = 0; round < ROUNDS; round++) {
            for (int channel = 0; channel < channels; channel++) {
                double cut = Math.floor(sums[channel][round] / (1L << shift) + 0.5);
                expected.add((int) Math.clamp(cut, -32768, 32767));
            }
        }
        assertThat(out.stream().map(StreamWord::low).toList()).isEqualTo(expected);
    }

    @ParameterizedTest
    @ValueSource(longs = {1, 2, 3, 4, 5, 6})
    void decimatingFilter(long seed) {
        Random random = new Random(seed);
        int channels = 1 + random.nextInt(4);
        int order = 1 + random.nextInt(4);
        int rate = 2 + random.nextInt(7);
        StreamRig rig =
                StreamRig.of(
                        "stream:decimating-filter:1.0",
                        Map.of(
                                "SAMPLE", "16",
                                "CHANNELS", "" + channels,
                                "ORDER", "" + order,
                                "RATE", "" + rate));
        int[][] samples = samples(random, channels);
        List<StreamWord> out = rig.through(words(samples), seed).get("out");
        double[] average = new double[rate];
        Arrays.fill(average, 1);
        int grows = order * (32 - Integer.numberOfLeadingZeros(rate - 1));
        List<Integer> expected = new ArrayList<>();
        double[][] sums = new double[channels][];
        for (int channel = 0; channel < channels; channel++) {
            sums[channel] = of(samples, channel);
            for (int stage = 0; stage < order; stage++) {
                sums[channel] = MathArrays.convolve(sums[channel], average);
            }
        }
        for (int round = rate - 1; round < ROUNDS; round += rate) {
            for (int channel = 0; channel < channels; channel++) {
                expected.add((int) Math.floor(sums[channel][round] / (1L << grows) + 0.5));
            }
        }
        assertThat(out.stream().map(StreamWord::low).toList()).isEqualTo(expected);
        assertThat(out.stream().map(StreamWord::last).toList())
                .isEqualTo(
                        IntStream.range(0, expected.size())
                                .mapToObj(at -> at % channels == channels - 1)
                                .toList());
    }

    private static int[][] samples(Random random, int channels) {
        int[][] samples = new int[ROUNDS][];
        for (int round = 0; round < ROUNDS; round++) {
            samples[round] = random.ints(channels, -32768, 32768).toArray();
        }
        return samples;
    }

    private static double[] of(int[][] samples, int channel) {
        return Arrays.stream(samples).mapToDouble(row -> row[channel]).toArray();
    }

    private static List<StreamWord> words(int[][] samples) {
        List<StreamWord> words = new ArrayList<>();
        for (int[] row : samples) {
            for (int sample : row) {
                words.add(StreamWord.of(sample, false));
            }
        }
        return words;
    }

    private static String text(int[] numbers) {
        return Arrays.stream(numbers).mapToObj(Integer::toString).collect(Collectors.joining(","));
    }
}
