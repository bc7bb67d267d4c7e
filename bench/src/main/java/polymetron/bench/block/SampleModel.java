package polymetron.bench.block;

import java.util.Map;
import polymetron.bench.stream.SinkPort;
import polymetron.bench.stream.Slice;
import polymetron.bench.stream.SourcePort;
import polymetron.bench.stream.StreamWord;

/**
 * A block that works on one sample after the other, of several channels in turn: a sample waits until the work on the one before it
 * is done, and what came of that is taken.
 */
abstract class SampleModel extends StreamModel {
    private enum Does {
        CLEARS,
        WAITS,
        WORKS,
        GIVES
    }

    final ChannelTurn turn;
    final BankField enable;
    private final boolean forgetsWhenOff;
    private final SinkPort in = new SinkPort();
    private final SourcePort out = new SourcePort();
    private final Map<String, SourcePort> sources;
    private final Slice slice = new Slice();
    private Does does;

    /** Edges that are left of what it does. */
    private long left;

    private StreamWord given;

    /**
     * @param output name of its source
     * @param forgetsWhenOff whether switching it off loses what it knows of earlier samples
     */
    SampleModel(RegisterBank bank, int channels, String output, boolean forgetsWhenOff) {
        super(bank);
        this.forgetsWhenOff = forgetsWhenOff;
        turn = new ChannelTurn(channels);
        enable = bank.field("CONTROL", "ENABLE");
        sources = Map.of(output, out);
    }

    /**
     * Begins the work on a sample.
     *
     * @return edges that it takes; 0 where the sample goes on as it is
     */
    abstract long begin(StreamWord sample);

    /** Ends the work; returns what it gives, or null for nothing. */
    abstract StreamWord finish();

    /** Forgets all samples; returns the edges that this takes. */
    abstract long forget();

    @Override
    public final Map<String, SinkPort> sinks() {
        return Map.of("in", in);
    }

    @Override
    public final Map<String, SourcePort> sources() {
        return sources;
    }

    @Override
    public final void edge() {
        StreamWord head = does == Does.WAITS && !isSwitchedOff() ? slice.head() : null;
        switch (does) {
            case WAITS -> {
                if (isSwitchedOff()) {
                    clearSamples();
                } else if (head != null) {
                    take(head);
                }
            }
            case GIVES -> {
                if (out.isTaken()) {
                    does = Does.WAITS;
                }
            }
            case CLEARS, WORKS -> {
                left--;
                if (left == 0) {
                    end();
                }
            }
        }
        slice.edge(in.arriving(), head != null);
        in.setReady(slice.isReady());
        out.offer(does == Does.GIVES ? given : null);
    }

    /** Samples were worked on, and shall be forgotten. */
    private boolean isSwitchedOff() {
        return forgetsWhenOff && turn.isUsed() && !enable.isSet();
    }

    private void take(StreamWord sample) {
        boolean works = turn.works(enable.isSet());
        turn.setUsed(works);
        if (!works) {
            turn.next();
            return;
        }
        left = begin(sample);
        does = Does.WORKS;
        if (left == 0) {
            give(handedOn(sample));
        }
    }

    /** A sample that goes on as it is. */
    StreamWord handedOn(StreamWord sample) {
        return sample;
    }

    private void end() {
        if (does == Does.CLEARS) {
            does = Does.WAITS;
        } else {
            give(finish());
        }
    }

    private void give(StreamWord word) {
        given = word;
        does = word == null ? Does.WAITS : Does.GIVES;
        turn.next();
    }

    private void clearSamples() {
        turn.setUsed(false);
        does = Does.CLEARS;
        left = forget();
    }

    @Override
    public final long quietFor() {
        return switch (does) {
            case WAITS -> slice.head() != null || isSwitchedOff() ? 0 : FOREVER;
            case GIVES -> FOREVER;
            case CLEARS, WORKS -> left - 1;
        };
    }

    @Override
    public final void skip(long edges) {
        if (does == Does.CLEARS || does == Does.WORKS) {
            left -= edges;
        }
    }

    @Override
    public void resetStream() {
        slice.clear();
        turn.clear();
        clearSamples();
        in.setReady(true);
        out.offer(null);
    }
}
