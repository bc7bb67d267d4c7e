package polymetron.bench.block;

import java.math.BigInteger;
import java.util.Arrays;
import polymetron.bench.stream.StreamWord;

/** Compares a short average of the size of samples with a long one, in each channel. */
public final class ThresholdTriggerModel extends SampleModel {
    private static final int LARGEST = 0xFFFF;

    /** To read and add both averages. */
    private static final int AVERAGE_EDGES = 4;

    private static final int DIVIDE_EDGES = 17;

    /** To compare with the other channels. */
    private static final int DECIDE_EDGES = 1;

    private final int sampleBits;
    private final int shorts;
    private final int longs;
    private final BankField threshold;
    private final BankField release;
    private final BankField wentOn;
    private final BankField wentOff;

    /** Averages times their length. */
    private final BigInteger[] shortSums;

    private final BigInteger[] longSums;
    private int ratio;
    private int largest;
    private int largestChannel;
    private long rounds;
    private boolean on;
    private int onChannel;
    private int shown;

    ThresholdTriggerModel(
            RegisterBank bank, int sampleBits, int channels, int shortLength, int longLength) {
        super(bank, channels, "events", true);
        this.sampleBits = sampleBits;
        this.shorts = Integer.numberOfTrailingZeros(shortLength);
        this.longs = Integer.numberOfTrailingZeros(longLength);
        shortSums = new BigInteger[channels];
        longSums = new BigInteger[channels];
        threshold = bank.field("THRESHOLD", "RATIO");
        release = bank.field("RELEASE", "RATIO");
        wentOn = bank.field("PENDING", "ON");
        wentOff = bank.field("PENDING", "OFF");
        bank.field("STATUS", "ON").gives(() -> on ? 1 : 0);
        bank.field("STATUS", "CHANNEL").gives(() -> onChannel);
        bank.field("RATIO", "RATIO").gives(() -> shown);
        clear();
    }

    @Override
    long begin(StreamWord sample) {
        int channel = turn.channel();
        BigInteger size = BigInteger.valueOf(Math.abs((long) sample.sample(sampleBits)));
        shortSums[channel] = average(shortSums[channel], shorts, size);
        longSums[channel] = average(longSums[channel], longs, size);
        if (longSums[channel].signum() == 0) {
            ratio = 0;
            return AVERAGE_EDGES + DECIDE_EDGES;
        }
        BigInteger divided =
                shortSums[channel].shiftLeft(longs - shorts + 4).divide(longSums[channel]);
        boolean isLarger = divided.bitLength() > 16;
        ratio = isLarger ? LARGEST : divided.intValue();
        return AVERAGE_EDGES + (isLarger ? 1 : DIVIDE_EDGES) + DECIDE_EDGES;
    }

    private static BigInteger average(BigInteger sum, int shift, BigInteger size) {
        return sum.subtract(sum.shiftRight(shift)).add(size);
    }

    @Override
    StreamWord finish() {
        if (turn.isFirst() || ratio > largest) {
            largest = ratio;
            largestChannel = turn.channel();
        }
        if (!turn.isLast()) {
            return null;
        }
        if (rounds < (1L << longs) - 1) {
            rounds++;
            return null;
        }
        return compare() ? StreamWord.of(onChannel << 8 | (on ? 1 : 0), false) : null;
    }

    @Override
    public void resetStream() {
        super.resetStream();
        onChannel = 0;
    }

    /** Returns whether it goes on or off. */
    private boolean compare() {
        shown = largest;
        if (!on && largest >= threshold.get()) {
            on = true;
            onChannel = largestChannel;
            wentOn.set(1);
            return true;
        }
        if (on && largest < release.get()) {
            on = false;
            wentOff.set(1);
            return true;
        }
        return false;
    }

    @Override
    long forget() {
        Arrays.fill(shortSums, BigInteger.ZERO);
        Arrays.fill(longSums, BigInteger.ZERO);
        rounds = 0;
        on = false;
        shown = 0;
        return 2L * shortSums.length;
    }
}
