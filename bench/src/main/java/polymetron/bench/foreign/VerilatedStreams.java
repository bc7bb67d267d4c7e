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
    private static final int STEP = 4;

    private final Map<String, SinkPort> sinks = new LinkedHashMap<>();
    private final Map<String, SourcePort> sources = new LinkedHashMap<>();
    private StreamNetwork network;

    /** Edges that it is ahead of the streams. */
    private long ahead;

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
    void accessed(int cycles) {
        ahead += cycles;
        wake();
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
            step(set, cleared);
            wake();
        } else {
            pass(1);
        }
        show();
    }

    private void step(List<Integer> set, List<Integer> cleared) {
        List<Integer> request = new ArrayList<>(List.of(STEP, set.size() / 3));
        request.addAll(set);
        request.add(cleared.size());
        request.addAll(cleared);
        ask(request.stream().mapToInt(Integer::intValue).toArray());
    }

    /** Edges pass at which no word comes or goes. */
    private void pass(long edges) {
        long late = Math.min(ahead, edges);
        ahead -= late;
        long left = edges - late;
        boolean changes = false;
        while (left > 0) {
            StepperProcess.Answer answer = ask(RUN, (int) Math.min(left, MOST_AT_ONCE));
            changes |= answer.cycles() < Math.min(left, MOST_AT_ONCE);
            left -= Math.max(1, answer.cycles());
            if (answer.hasEnded()) {
                break;
            }
        }
        if (changes) {
            wake();
        } else if (awake > 0) {
            awake = (int) Math.max(0, awake - edges);
        } else {
            rest -= edges;
        }
        if (awake == 0 && rest <= 0) {
            longest = Math.min(LATEST, 2 * longest);
            rest = longest;
        }
    }

    private void wake() {
        awake = SOONEST;
        longest = SOONEST / 2;
        rest = 0;
    }

    @Override
    public long quietFor() {
        return awake > 0 ? 0 : Math.max(0, rest - 1);
    }

    @Override
    public void skip(long edges) {
        pass(edges);
        show();
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
        wake();
        show();
    }

    @Override
    public void resetStream() {
        clear();
    }
}
