package polymetron.bench.block;

import java.math.BigInteger;
import java.util.Map;
import polymetron.bench.stream.SinkPort;
import polymetron.bench.stream.Slice;
import polymetron.bench.stream.SourcePort;
import polymetron.bench.stream.StreamWord;

/** Sums of the last samples of each channel, each times its coefficient; a sample waits until the one before it is done. */
public final class FirFilterModel extends StreamModel {
    /** From the last product on: to add it, and to round. */
    private static final int MORE_EDGES = 3;

    private enum Does {
        CLEARS,
        WAITS,
        WORKS,
        GIVES
    }

    private final FirShape shape;
    private final StreamSample sample;
    private final BankField enable;
    private final BankField bypass;
    private final BankField clipped;
    private final BankField[] coefficients;
    private final SinkPort in = new SinkPort();
    private final SourcePort out = new SourcePort();
    private final Slice slice = new Slice();
    private final ChannelTurn turn;

    /** The last samples of each channel, the newest one first. */
    private final int[][] history;

    private Does does;
    private long left;
    private StreamWord word;
    private int given;

    FirFilterModel(RegisterBank bank, FirShape shape) {
        super(bank);
        this.shape = shape;
        sample = new StreamSample(shape.sample());
        enable = bank.field("CONTROL", "ENABLE");
        bypass = bank.field("CONTROL", "BYPASS");
        clipped = bank.field("STATUS", "CLIPPED");
        coefficients = new BankField[shape.taps()];
        for (int tap = 0; tap < coefficients.length; tap++) {
            coefficients[tap] = bank.row("COEFFICIENT", tap, "VALUE");
        }
        turn = new ChannelTurn(shape.channels());
        history = new int[shape.channels()][shape.taps()];
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
        StreamWord head = does == Does.WAITS ? slice.head() : null;
        switch (does) {
            case WAITS -> {
                if (head != null) {
                    take(head);
                }
            }
            case GIVES -> {
                if (out.isTaken()) {
                    does = Does.WAITS;
                    turn.next();
                }
            }
            default -> {
                left--;
                if (left == 0) {
                    end();
                }
            }
        }
        slice.edge(in.arriving(), head != null);
        in.setReady(slice.isReady());
        out.offer(does == Does.GIVES ? StreamWord.of(given, word.last()) : null);
    }

    private void take(StreamWord head) {
        boolean works = turn.works(enable.isSet());
        turn.setUsed(works);
        if (!works) {
            turn.next();
            return;
        }
        word = head;
        given = head.sample(shape.sample());
        if (bypass.isSet()) {
            does = Does.GIVES;
            return;
        }
        int[] last = history[turn.channel()];
        System.arraycopy(last, 0, last, 1, last.length - 1);
        last[0] = given;
        does = Does.WORKS;
        left = shape.depth() + MORE_EDGES;
    }

    /** Coefficients count as they are when they are needed; they are not changed meanwhile. */
    private void end() {
        if (does == Does.CLEARS) {
            does = Does.WAITS;
            return;
        }
        BigInteger sum = BigInteger.ZERO;
        int[] last = history[turn.channel()];
        StreamSample coefficient = new StreamSample(shape.coefficient());
        for (int tap = 0; tap < last.length; tap++) {
            long factor = coefficient.of(BigInteger.valueOf(coefficients[tap].get()));
            sum = sum.add(BigInteger.valueOf(factor * last[tap]));
        }
        BigInteger wrapped = wrap(sum);
        BigInteger half =
                shape.shift() == 0 ? BigInteger.ZERO : BigInteger.ONE.shiftLeft(shape.shift() - 1);
        BigInteger cut = wrapped.add(half).shiftRight(shape.shift());
        if (!sample.fits(cut)) {
            clipped.set(1);
        }
        given = sample.clipped(cut);
        does = Does.GIVES;
    }

    private BigInteger wrap(BigInteger value) {
        BigInteger beyond = BigInteger.ONE.shiftLeft(shape.inside());
        BigInteger low = value.mod(beyond);
        return low.testBit(shape.inside() - 1) ? low.subtract(beyond) : low;
    }

    @Override
    public long quietFor() {
        return switch (does) {
            case WAITS -> slice.head() != null ? 0 : FOREVER;
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
        for (int[] channel : history) {
            java.util.Arrays.fill(channel, 0);
        }
        does = Does.CLEARS;
        left = (long) shape.depth() * shape.channels();
        in.setReady(true);
        out.offer(null);
    }
}
