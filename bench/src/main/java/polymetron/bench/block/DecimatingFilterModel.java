package polymetron.bench.block;

import java.math.BigInteger;
import java.util.Arrays;
import java.util.Map;
import polymetron.bench.stream.SinkPort;
import polymetron.bench.stream.Slice;
import polymetron.bench.stream.SourcePort;
import polymetron.bench.stream.StreamWord;

/** Integrators and combs of each channel, as the hardware does them: a sample waits until the one before it is done. */
public final class DecimatingFilterModel extends StreamModel {
    private enum Does {
        CLEARS,
        WAITS,
        WORKS,
        GIVES
    }

    private final int sampleBits;
    private final int order;
    private final int inside;
    private final BankField enable;
    private final BankField rate;
    private final SinkPort in = new SinkPort();
    private final SourcePort out = new SourcePort();
    private final Slice slice = new Slice();
    private final ChannelTurn turn;
    private final BigInteger[][] integrators;
    private final BigInteger[][] combs;
    private Does does;

    /** Edges that are left of what it does. */
    private long left;

    private boolean isResult;
    private int samples;
    private int given;

    /**
     * @param inside bits that a value has inside
     */
    DecimatingFilterModel(RegisterBank bank, int sampleBits, int channels, int order, int inside) {
        super(bank);
        this.sampleBits = sampleBits;
        this.order = order;
        this.inside = inside;
        enable = bank.field("CONTROL", "ENABLE");
        rate = bank.field("RATE", "SAMPLES");
        turn = new ChannelTurn(channels);
        integrators = new BigInteger[channels][order];
        combs = new BigInteger[channels][order];
        clear();
    }

    @Override
    public Map<String, SinkPort> sinks() {
        return Map.of("in", in);
    }

    @Override
    public Map<String, SourcePort> sources() {
        return Map.of("out", out);
    }

    @Override
    public void edge() {
        boolean enabled = enable.isSet();
        StreamWord head = slice.head();
        boolean takes = does == Does.WAITS && (enabled || !turn.isUsed());
        if (!enabled && turn.isUsed() && does == Does.WAITS) {
            forget();
        } else {
            step(enabled, head);
        }
        slice.edge(in.arriving(), takes && head != null);
        in.setReady(slice.isReady());
        out.offer(does == Does.GIVES ? StreamWord.of(given, turn.isLast()) : null);
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
            case GIVES -> {
                if (out.isTaken()) {
                    next();
                }
            }
            default -> {
                left--;
                if (left == 0) {
                    end();
                }
            }
        }
    }

    private void end() {
        if (does == Does.CLEARS) {
            does = Does.WAITS;
        } else if (isResult) {
            does = Does.GIVES;
        } else {
            next();
        }
    }

    private void next() {
        does = Does.WAITS;
        if (turn.isLast()) {
            samples = isResult ? 0 : samples + 1;
        }
        turn.next();
    }

    private void begin(int sample) {
        BigInteger value = BigInteger.valueOf(sample);
        BigInteger[] sums = integrators[turn.channel()];
        for (int stage = 0; stage < order; stage++) {
            value = wrap(value.add(sums[stage]));
            sums[stage] = value;
        }
        isResult = samples >= (rate.get() - 1 & 0x1FFF);
        does = Does.WORKS;
        left = 2L * order;
        if (isResult) {
            BigInteger[] before = combs[turn.channel()];
            for (int stage = 0; stage < order; stage++) {
                BigInteger difference = wrap(value.subtract(before[stage]));
                before[stage] = value;
                value = difference;
            }
            int cuts = order * octaves();
            BigInteger half = cuts == 0 ? BigInteger.ZERO : BigInteger.ONE.shiftLeft(cuts - 1);
            given = new StreamSample(sampleBits).of(value.add(half).shiftRight(cuts));
            left += 2L * order + cuts + 1;
        }
    }

    /** The logarithm of the rate to the base of two, rounded up. */
    private int octaves() {
        long samplesOfOne = rate.get();
        return samplesOfOne <= 1 ? 0 : 64 - Long.numberOfLeadingZeros(samplesOfOne - 1);
    }

    private BigInteger wrap(BigInteger value) {
        BigInteger low = value.and(BigInteger.ONE.shiftLeft(inside).subtract(BigInteger.ONE));
        return low.testBit(inside - 1) ? low.subtract(BigInteger.ONE.shiftLeft(inside)) : low;
    }

    private void forget() {
        for (int channel = 0; channel < integrators.length; channel++) {
            Arrays.fill(integrators[channel], BigInteger.ZERO);
            Arrays.fill(combs[channel], BigInteger.ZERO);
        }
        samples = 0;
        turn.setUsed(false);
        does = Does.CLEARS;
        left = 2L * order * integrators.length;
    }

    @Override
    public long quietFor() {
        return switch (does) {
            case WAITS -> slice.head() != null || !enable.isSet() && turn.isUsed() ? 0 : FOREVER;
            case GIVES -> FOREVER;
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
        in.setReady(true);
        out.offer(null);
    }
}
