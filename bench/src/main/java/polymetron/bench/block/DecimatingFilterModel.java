package polymetron.bench.block;

import java.math.BigInteger;
import java.util.Arrays;
import polymetron.bench.stream.StreamWord;

/** Integrators and combs of each channel. */
public final class DecimatingFilterModel extends SampleModel {
    private final StreamSample sample;
    private final int order;
    private final int inside;
    private final BankField rate;
    private final BigInteger[][] integrators;
    private final BigInteger[][] combs;

    /** Rounds of samples since the last result. */
    int rounds;

    /** Of the round at work: the first channel decides for all. */
    private long rateOfRound;

    private boolean isResult;
    private int result;

    /**
     * @param inside bits that a value has inside
     */
    DecimatingFilterModel(RegisterBank bank, int sampleBits, int channels, int order, int inside) {
        super(bank, channels, "out", true);
        this.sample = new StreamSample(sampleBits);
        this.order = order;
        this.inside = inside;
        rate = bank.field("RATE", "SAMPLES");
        integrators = new BigInteger[channels][order];
        combs = new BigInteger[channels][order];
        clear();
    }

    /** Each stage takes two edges, and each bit that is cut off one. */
    @Override
    long begin(StreamWord word) {
        if (turn.channel() == 0) {
            rateOfRound = rate.get();
        }
        BigInteger value = BigInteger.valueOf(word.sample(sample.bits()));
        BigInteger[] sums = integrators[turn.channel()];
        for (int stage = 0; stage < order; stage++) {
            value = StreamSample.wrapped(value.add(sums[stage]), inside);
            sums[stage] = value;
        }
        isResult = rounds >= (rateOfRound - 1 & rate.type().ones());
        if (!isResult) {
            return 2L * order;
        }
        BigInteger[] before = combs[turn.channel()];
        for (int stage = 0; stage < order; stage++) {
            BigInteger difference = StreamSample.wrapped(value.subtract(before[stage]), inside);
            before[stage] = value;
            value = difference;
        }
        int cuts = order * octaves();
        result = sample.of(StreamSample.rounded(value, cuts));
        return 4L * order + cuts + 1;
    }

    @Override
    StreamWord finish() {
        if (turn.isLast()) {
            rounds = isResult ? 0 : rounds + 1;
        }
        return isResult ? StreamWord.of(result, turn.isLast()) : null;
    }

    /** The logarithm of the rate to the base of two, rounded up. */
    private int octaves() {
        return rateOfRound <= 1 ? 0 : 64 - Long.numberOfLeadingZeros(rateOfRound - 1);
    }

    @Override
    long forget() {
        for (int channel = 0; channel < integrators.length; channel++) {
            Arrays.fill(integrators[channel], BigInteger.ZERO);
            Arrays.fill(combs[channel], BigInteger.ZERO);
        }
        rounds = 0;
        return 2L * order * integrators.length;
    }
}
