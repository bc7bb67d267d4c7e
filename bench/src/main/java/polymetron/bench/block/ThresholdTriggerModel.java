package polymetron.bench.block;

import java.math.BigInteger;
import java.util.Arrays;
import java.util.Map;
import polymetron.bench.stream.SinkPort;
import polymetron.bench.stream.Slice;
import polymetron.bench.stream.SourcePort;
import polymetron.bench.stream.StreamWord;

/** Compares a short average of the size of samples with a long one, in each channel. */
public final class ThresholdTriggerModel extends StreamModel {
    private static final int LARGEST = 0xFFFF;

    /** To read and add both averages. */
    private static final int AVERAGE_EDGES = 4;

    private static final int DIVIDE_EDGES = 17;

    private enum Does {
        CLEARS,
        WAITS,
        WORKS,
        DECIDES,
        TELLS
    }

    private final int sampleBits;
    private final int shorts;
    private final int longs;
    private final BankField enable;
    private final BankField threshold;
    private final BankField release;
    private final BankField wentOn;
    private final BankField wentOff;
    private final SinkPort in = new SinkPort();
    private final SourcePort events = new SourcePort();
    private final Slice slice = new Slice();
    private final ChannelTurn turn;

    /** Averages times their length. */
    private final BigInteger[] shortSums;

    private final BigInteger[] longSums;
    private Does does;
    private long left;
    private int ratio;
    private int largest;
    private int largestChannel;
    private long rounds;
    private boolean on;
    private int onChannel;
    private int shown;

    ThresholdTriggerModel(
            RegisterBank bank, int sampleBits, int channels, int shortLength, int longLength) {
        super(bank);
        this.sampleBits = sampleBits;
        this.shorts = Integer.numberOfTrailingZeros(shortLength);
        this.longs = Integer.numberOfTrailingZeros(longLength);
        turn = new ChannelTurn(channels);
        shortSums = new BigInteger[channels];
        longSums = new BigInteger[channels];
        enable = bank.field("CONTROL", "ENABLE");
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
    public Map<String, SinkPort> sinks() {
        return Map.of("in", in);
    }

    @Override
    public Map<String, SourcePort> sources() {
        return Map.of("events", events);
    }

    @Override
    public void edge() {
        boolean enabled = enable.isSet();
        StreamWord head = slice.head();
        boolean takes = does == Does.WAITS && (enabled || !turn.isUsed());
        if (!enabled && turn.isUsed() && does == Does.WAITS) {
            forget();
            on = false;
            shown = 0;
        } else {
            step(enabled, head);
        }
        slice.edge(in.arriving(), takes && head != null);
        in.setReady(slice.isReady());
        events.offer(
                does == Does.TELLS ? StreamWord.of(onChannel << 8 | (on ? 1 : 0), false) : null);
    }

    private void step(boolean enabled, StreamWord head) {
        switch (does) {
            case WAITS -> {
                if (head != null && turn.works(enabled)) {
                    turn.setUsed(true);
                    begin(head.sample(sampleBits));
                } else if (head != null) {
                    turn.next();
                }
            }
            case CLEARS, WORKS -> {
                left--;
                if (left == 0) {
                    does = does == Does.CLEARS ? Does.WAITS : Does.DECIDES;
                }
            }
            case DECIDES -> decide();
            case TELLS -> {
                if (events.isTaken()) {
                    does = Does.WAITS;
                }
            }
        }
    }

    private void begin(int sample) {
        int channel = turn.channel();
        BigInteger size = BigInteger.valueOf(Math.abs((long) sample));
        shortSums[channel] = average(shortSums[channel], shorts, size);
        longSums[channel] = average(longSums[channel], longs, size);
        does = Does.WORKS;
        left = AVERAGE_EDGES;
        if (longSums[channel].signum() == 0) {
            ratio = 0;
            return;
        }
        BigInteger divided =
                shortSums[channel].shiftLeft(longs - shorts + 4).divide(longSums[channel]);
        boolean isLarger = divided.bitLength() > 16;
        ratio = isLarger ? LARGEST : divided.intValue();
        left += isLarger ? 1 : DIVIDE_EDGES;
    }

    private static BigInteger average(BigInteger sum, int shift, BigInteger size) {
        return sum.subtract(sum.shiftRight(shift)).add(size);
    }

    private void decide() {
        boolean isLarger = turn.isFirst() || ratio > largest;
        if (isLarger) {
            largest = ratio;
            largestChannel = turn.channel();
        }
        does = Does.WAITS;
        if (turn.isLast()) {
            if (rounds < (1L << longs) - 1) {
                rounds++;
            } else {
                compare();
            }
        }
        turn.next();
    }

    private void compare() {
        shown = largest;
        if (!on && largest >= threshold.get()) {
            on = true;
            onChannel = largestChannel;
            wentOn.set(1);
            does = Does.TELLS;
        } else if (on && largest < release.get()) {
            on = false;
            wentOff.set(1);
            does = Does.TELLS;
        }
    }

    private void forget() {
        Arrays.fill(shortSums, BigInteger.ZERO);
        Arrays.fill(longSums, BigInteger.ZERO);
        rounds = 0;
        turn.setUsed(false);
        does = Does.CLEARS;
        left = 2L * shortSums.length;
    }

    @Override
    public long quietFor() {
        return switch (does) {
            case WAITS -> slice.head() != null || !enable.isSet() && turn.isUsed() ? 0 : FOREVER;
            case TELLS -> FOREVER;
            case DECIDES -> 0;
            case CLEARS, WORKS -> left - 1;
        };
    }

    @Override
    public void skip(long edges) {
        if (does == Does.CLEARS || does == Does.WORKS) {
            left -= edges;
        }
    }

    @Override
    public void resetStream() {
        slice.clear();
        turn.clear();
        forget();
        largest = 0;
        largestChannel = 0;
        on = false;
        onChannel = 0;
        shown = 0;
        in.setReady(true);
        events.offer(null);
    }
}
