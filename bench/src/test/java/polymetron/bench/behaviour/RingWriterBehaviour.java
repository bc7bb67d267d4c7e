package polymetron.bench.behaviour;

import static polymetron.bench.behaviour.Registers.any;
import static polymetron.bench.behaviour.Registers.bit;
import static polymetron.bench.behaviour.Registers.isSet;
import static polymetron.bench.behaviour.Registers.named;
import static polymetron.bench.behaviour.Registers.once;
import static polymetron.bench.behaviour.Registers.word;

import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.util.Map;
import java.util.Random;
import polymetron.bench.stream.StreamWord;
import polymetron.bench.stream.WordFifo;

/** Words that go round and round into a buffer, while memory answers when it likes and software stops and starts. */
final class RingWriterBehaviour implements Behaviour {
    private static final int QUEUED_BURSTS = 4;

    private final int bytes;
    private final WordFifo queue;
    private boolean runs;
    private boolean underWay;
    private long place;
    private long sinceMark;

    // What software wrote, and how fast memory and source are for now.
    private boolean run;
    private boolean once;
    private long base;
    private long size;
    private long mark;
    private int memory = 2;
    private int source = 2;

    /**
     * @param width of the words in bits, at most 64
     */
    RingWriterBehaviour(int width, int burst) {
        bytes = width / Byte.SIZE;
        queue = new WordFifo(QUEUED_BURSTS * burst);
    }

    @Override
    public String module() {
        return "polymetron_ring_writer";
    }

    @Override
    public Map<String, Integer> registers() {
        return Map.of("place", 32, "since_mark", 32);
    }

    @Override
    public Map<String, Long> inputs(Random random, int cycle) {
        if (cycle % 200 == 0) {
            memory = 1 + random.nextInt(6);
            source = 1 + random.nextInt(6);
        }
        if (!run && once(random, 10)) {
            run = true;
            once = once(random, 2);
            base = any(random, 32);
            size = bytes * (1L + random.nextInt(20));
            mark = once(random, 4) ? 0 : bytes * (1L + random.nextInt(30));
        } else if (once(random, 400)) {
            run = false;
        }
        if (once(random, 100)) {
            size = any(random, 32);
            mark = any(random, 32);
        }
        return named(
                "writes_done", bit(once(random, memory)),
                "writes_error", bit(once(random, 5)),
                "in_tdata", random.nextLong() & -1L >>> 64 - 8 * bytes,
                "in_tvalid", bit(once(random, source)),
                "CONTROL_RUN", bit(run),
                "CONTROL_ONCE", bit(once),
                "BASE_BYTE", base,
                "SIZE_BYTES", size,
                "MARK_BYTES", mark);
    }

    /** Far into a large buffer, and just before the end of this one. */
    @Override
    public Map<String, Long> put(Random random, int cycle) {
        if (!once(random, 12)) {
            return Map.of();
        }
        place = word((once(random, 2) ? size - 2 * bytes : any(random, 31)) & -bytes);
        sinceMark = word((once(random, 2) ? mark - 2 * bytes : any(random, 31)) & -bytes);
        return named("place", place, "since_mark", sinceMark);
    }

    @Override
    public Map<String, Long> step(Map<String, Long> in) {
        boolean isOff = !runs && !underWay;
        StreamWord head = queue.head();
        boolean requests = head != null && !isOff;
        boolean ends = requests && isSet(in, "writes_done");
        boolean counts = ends && runs;
        long after = word(place + bytes);
        long marked = word(sinceMark + bytes);
        boolean isRound = after >= in.get("SIZE_BYTES");
        boolean isMark = in.get("MARK_BYTES") != 0 && marked >= in.get("MARK_BYTES");
        boolean stops = counts && isRound && isSet(in, "CONTROL_ONCE");
        boolean comes = isSet(in, "in_tvalid") && runs;
        boolean isLost = comes && !queue.isReady();
        Map<String, Long> out =
                named(
                        "in_tready", 1,
                        "writes_request", bit(requests),
                        "writes_write", 1,
                        "writes_address", word(in.get("BASE_BYTE") + place) & -bytes,
                        "writes_bytes", (1 << bytes) - 1,
                        "CONTROL_RUN_load", bit(stops),
                        "CONTROL_RUN_new", 0,
                        "STATUS_MARK_set", bit(counts && isMark),
                        "STATUS_ROUND_set", bit(counts && isRound),
                        "STATUS_ERROR_set", bit(counts && isSet(in, "writes_error")),
                        "STATUS_LOST_set", bit(isLost),
                        "WRITTEN_BYTES", place,
                        "ROUNDS_ROUNDS_count", bit(counts && isRound));
        if (requests) {
            out.put("writes_value", valueOf(head));
        }
        boolean begins = isSet(in, "CONTROL_RUN") && isOff;
        queue.edge(comes && !isLost ? wordOf(in.get("in_tdata")) : null, ends);
        if (isOff) {
            queue.clear();
        }
        if (begins) {
            place = 0;
            sinceMark = 0;
        } else if (counts) {
            place = isRound ? 0 : after;
            sinceMark = isMark ? 0 : marked;
        }
        underWay = requests && !ends;
        runs = isSet(in, "CONTROL_RUN") && (runs || begins) && !stops;
        if (stops) {
            run = false;
        }
        return out;
    }

    private StreamWord wordOf(long value) {
        byte[] all =
                ByteBuffer.allocate(Long.BYTES)
                        .order(ByteOrder.LITTLE_ENDIAN)
                        .putLong(value)
                        .array();
        boolean[] keep = new boolean[bytes];
        java.util.Arrays.fill(keep, true);
        return new StreamWord(java.util.Arrays.copyOf(all, bytes), keep, false);
    }

    private static long valueOf(StreamWord word) {
        long value = 0;
        for (int at = word.bytes().length - 1; at >= 0; at--) {
            value = value << Byte.SIZE | word.bytes()[at] & 0xFF;
        }
        return value;
    }

    @Override
    public void reset() {
        queue.clear();
        runs = false;
        underWay = false;
        place = 0;
        sinceMark = 0;
        run = false;
    }
}
