package polymetron.bench.block;

import java.math.BigInteger;
import java.util.Arrays;
import polymetron.bench.stream.StreamWord;

/** Sums of the last samples of each channel, each times its coefficient. */
public final class FirFilterModel extends SampleModel {
    /** From the last product on: to add it, and to round. */
    private static final int MORE_EDGES = 3;

    private final FirShape shape;
    private final StreamSample sample;
    private final StreamSample coefficient;
    private final BankField bypass;
    private final BankField clipped;
    private final BankField[] coefficients;

    /** The last samples of each channel, the newest one first. */
    private final int[][] history;

    private boolean ends;

    /** The first channel decides for all. */
    private boolean handsOn;

    FirFilterModel(RegisterBank bank, FirShape shape) {
        super(bank, shape.channels(), "out", false);
        this.shape = shape;
        sample = new StreamSample(shape.sample());
        coefficient = new StreamSample(shape.coefficient());
        bypass = bank.field("CONTROL", "BYPASS");
        clipped = bank.field("STATUS", "CLIPPED");
        coefficients = new BankField[shape.taps()];
        for (int tap = 0; tap < coefficients.length; tap++) {
            coefficients[tap] = bank.row("COEFFICIENT", tap, "VALUE");
        }
        history = new int[shape.channels()][shape.taps()];
        clear();
    }

    @Override
    long begin(StreamWord word) {
        if (turn.isFirst()) {
            handsOn = bypass.isSet();
        }
        if (handsOn) {
            return 0;
        }
        ends = word.last();
        int[] last = history[turn.channel()];
        System.arraycopy(last, 0, last, 1, last.length - 1);
        last[0] = word.sample(shape.sample());
        return shape.depth() + MORE_EDGES;
    }

    /** What is above a sample in the word is its sign. */
    @Override
    StreamWord handedOn(StreamWord word) {
        return StreamWord.of(word.sample(shape.sample()), word.last());
    }

    /** Coefficients count as they are when they are needed; they are not changed meanwhile. */
    @Override
    StreamWord finish() {
        BigInteger sum = BigInteger.ZERO;
        int[] last = history[turn.channel()];
        for (int tap = 0; tap < last.length; tap++) {
            long factor = coefficient.of(BigInteger.valueOf(coefficients[tap].get()));
            sum = sum.add(BigInteger.valueOf(factor * last[tap]));
        }
        BigInteger cut =
                StreamSample.rounded(StreamSample.wrapped(sum, shape.inside()), shape.shift());
        if (!sample.fits(cut)) {
            clipped.set(1);
        }
        return StreamWord.of(sample.clipped(cut), ends);
    }

    @Override
    long forget() {
        for (int[] channel : history) {
            Arrays.fill(channel, 0);
        }
        return (long) shape.depth() * shape.channels();
    }
}
