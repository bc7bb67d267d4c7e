package polymetron.output.hardware;

import java.math.BigInteger;

/**
 * What a stand-in for a converter samples: ground that shakes and comes to rest again, a little noise, and each channel later
 * than the one before. The same every time, in simulation and on the bench.
 */
public final class ConverterSamples {
    /** Samples of each channel; then they begin again. */
    public static final int COUNT = 1024;

    private static final double FULL_SCALE = 0.7;
    private static final double PERIOD = 25.0;
    private static final double DECAY = 140.0;
    private static final int DELAY = 6;
    private static final double NOISE = 0.0005;
    private static final long SEED = 1;

    private ConverterSamples() {}

    /**
     * By time and channel, as signed numbers of so many bits.
     *
     * @param bits 2 to 32
     */
    public static int[][] of(int channels, int bits) {
        long noise = SEED;
        double most = (double) ((1L << bits - 1) - 1);
        int[][] samples = new int[COUNT][channels];
        for (int at = 0; at < COUNT; at++) {
            for (int channel = 0; channel < channels; channel++) {
                double time = Math.max(0, at - channel * DELAY);
                double motion =
                        FULL_SCALE
                                * StrictMath.exp(-time / DECAY)
                                * StrictMath.sin(2 * StrictMath.PI * time / PERIOD);
                // The next number of a linear congruential generator (Knuth's constants, from
                // memory).
                noise = noise * 6_364_136_223_846_793_005L + 1_442_695_040_888_963_407L;
                double sample = motion + NOISE * (noise >> 11) / (double) (1L << 52);
                samples[at][channel] = (int) Math.round(sample * most);
            }
        }
        return samples;
    }

    /** As a memory file of Verilog: a word is one sample of every channel, the first channel highest. */
    static String memoryFile(ConverterShape shape) {
        int bits = shape.bits();
        StringBuilder text = new StringBuilder();
        for (int[] row : of(shape.channels(), bits)) {
            BigInteger word = BigInteger.ZERO;
            for (int sample : row) {
                word = word.shiftLeft(bits).or(BigInteger.valueOf(sample & (1L << bits) - 1));
            }
            text.append(word.toString(16)).append('\n');
        }
        return text.toString();
    }
}
