package polymetron.bench.foreign;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import polymetron.bench.block.StreamBlock;
import polymetron.bench.stream.SinkPort;
import polymetron.bench.stream.SourcePort;
import polymetron.bench.stream.StreamNetwork;
import polymetron.bench.stream.StreamWord;
import polymetron.output.hardware.BlockHarness;
import polymetron.output.hardware.HarnessStream;

/**
 * A user's block with streams. While words move it is stepped one edge after the other; after some edges at which nothing moved and
 * nothing it drives has changed it runs for as long as its pace at once, so that a word that it offers of itself is seen that much
 * later, as if its sink had been busy until then. Cycles that an access takes are ahead of the streams: they are made up for while
 * nothing moves.
 */
final class VerilatedStreams extends VerilatedModel implements StreamBlock {
    /** Edges without a word after which it is no longer stepped one by one. */
    private static final int AWAKE = 32;

    private final Map<String, SinkPort> sinks = new LinkedHashMap<>();
    private final Map<String, SourcePort> sources = new LinkedHashMap<>();
    private StreamNetwork network;

    /** Edges that it is ahead of the streams. */
    private long ahead;

    /** Edges that have passed, and that it has not done yet. */
    private long owed;

    /** Edges for which it is still stepped one by one. */
    private int awake;

    /** Edges that it may run at once from now on, and those that it began with. */
    private long rest;

    private int longest;

    VerilatedStreams(String name, StepperProcess process, BlockHarness harness) {
        super(name, process, harness);
        for (HarnessStream stream : harness.streams()) {
            if (stream.isSource()) {
                sources.put(stream.name(), new SourcePort());
            } else {
                sinks.put(stream.name(), new SinkPort());
            }
        }
    }

    @Override
    public void join(StreamNetwork streams) {
        network = streams;
    }

    @Override
    public Map<String, SinkPort> sinks() {
        return sinks;
    }

    @Override
    public Map<String, SourcePort> sources() {
        return sources;
    }

    // --- time

    @Override
    protected void run() {
        if (network == null) {
            super.run();
        } else {
            network.advance(processorNow());
        }
    }

    @Override
    public long nextEvent() {
        return network == null ? super.nextEvent() : NEVER;
    }

    @Override
    void beforeAccess() {
        catchUp();
    }

    @Override
    void accessed(int cycles) {
        ahead += cycles;
        restAnew();
        show();
        if (network != null) {
            network.look();
        }
    }

    @Override
    public void edge() {
        List<Integer> set = new ArrayList<>();
        List<Integer> cleared = new ArrayList<>();
        for (HarnessStream stream : harness().streams()) {
            if (stream.isSource()) {
                if (sources.get(stream.name()).isTaken()) {
                    set(set, stream.ready(), 1);
                    cleared.add(stream.ready());
                }
            } else if (sinks.get(stream.name()).arriving() != null) {
                set(set, stream.valid(), 1);
                word(set, stream, sinks.get(stream.name()).arriving());
                cleared.add(stream.valid());
            }
        }
        if (!cleared.isEmpty()) {
            catchUp();
            step(set, cleared);
            wake();
        } else {
            owed++;
            restFor(1);
            long shown = marks();
            boolean changes = catchUp();
            if (marks() != shown) {
                wake();
            } else if (changes) {
                restAnew();
            } else if (awake == 0 && rest <= 0) {
                longest = Math.min(LATEST, 2 * longest);
                rest = longest;
            }
        }
        show();
    }

    /** Lets the edges pass that it owes; returns whether anything that it drives has changed. */
    private boolean catchUp() {
        long late = Math.min(ahead, owed);
        ahead -= late;
        long left = owed - late;
        owed = 0;
        boolean changes = false;
        while (left > 0) {
            int most = (int) Math.min(left, MOST_AT_ONCE);
            StepperProcess.Answer answer = forward(most);
            changes |= answer.cycles() < most;
            left -= Math.max(1, answer.cycles());
            if (answer.hasEnded()) {
                break;
            }
        }
        return changes;
    }

    /** What its streams offer and take, a bit each. */
    private long marks() {
        long marks = 0;
        for (HarnessStream stream : harness().streams()) {
            marks = marks << 1 | output(stream.isSource() ? stream.valid() : stream.ready());
        }
        return marks;
    }

    private void wake() {
        awake = AWAKE;
        restAnew();
    }

    private void restAnew() {
        longest = SOONEST;
        rest = longest;
    }

    /** Edges of rest have passed. */
    private void restFor(long edges) {
        long ofAwake = Math.min(awake, edges);
        awake -= (int) ofAwake;
        rest -= edges - ofAwake;
    }

    @Override
    public long quietFor() {
        return awake > 0 ? 0 : Math.max(0, rest - 1);
    }

    /** Nothing comes or goes meanwhile, so it may do these edges later. */
    @Override
    public void skip(long edges) {
        owed += edges;
        restFor(edges);
    }

    // --- words

    private static void set(List<Integer> set, int input, long value) {
        set.add(input);
        set.add((int) value);
        set.add((int) (value >>> Integer.SIZE));
    }

    private static void word(List<Integer> set, HarnessStream stream, StreamWord word) {
        long[] parts = new long[stream.parts()];
        int bytes = stream.dataBits() / Byte.SIZE;
        for (int at = 0; at < bytes; at++) {
            put(parts, Byte.SIZE * at, at < word.bytes().length ? word.bytes()[at] & 0xFF : 0);
        }
        int next = stream.dataBits();
        if (stream.hasKeep()) {
            for (int at = 0; at < bytes; at++) {
                put(parts, next++, word.keeps(at) ? 1 : 0);
            }
        }
        if (stream.hasLast()) {
            put(parts, next, word.last() ? 1 : 0);
        }
        for (int part = 0; part < parts.length; part++) {
            set(set, stream.word() + part, parts[part]);
        }
    }

    /** Bits of a value never lie across two parts: data has whole bytes. */
    private static void put(long[] parts, int bit, long value) {
        parts[bit / Long.SIZE] |= value << bit % Long.SIZE;
    }

    private StreamWord word(HarnessStream stream) {
        int bytes = stream.dataBits() / Byte.SIZE;
        byte[] data = new byte[bytes];
        for (int at = 0; at < bytes; at++) {
            data[at] = (byte) bits(stream, Byte.SIZE * at, 0xFF);
        }
        boolean[] keep = stream.hasKeep() ? new boolean[bytes] : null;
        for (int at = 0; keep != null && at < bytes; at++) {
            keep[at] = bits(stream, stream.dataBits() + at, 1) != 0;
        }
        boolean last = stream.hasLast() && bits(stream, stream.bits() - 1, 1) != 0;
        return new StreamWord(data, keep, last);
    }

    private long bits(HarnessStream stream, int bit, long mask) {
        return output(stream.word() + bit / Long.SIZE) >>> bit % Long.SIZE & mask;
    }

    /** What its streams offer and take from now on. */
    private void show() {
        for (HarnessStream stream : harness().streams()) {
            if (stream.isSource()) {
                sources.get(stream.name()).offer(output(stream.valid()) != 0 ? word(stream) : null);
            } else {
                sinks.get(stream.name()).setReady(output(stream.ready()) != 0);
            }
        }
    }

    @Override
    protected void clear() {
        super.clear();
        ahead = 0;
        owed = 0;
        wake();
        show();
    }

    @Override
    public void resetStream() {
        clear();
    }
}
