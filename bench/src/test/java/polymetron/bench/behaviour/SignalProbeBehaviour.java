package polymetron.bench.behaviour;

import static polymetron.bench.behaviour.Registers.bit;
import static polymetron.bench.behaviour.Registers.isSet;
import static polymetron.bench.behaviour.Registers.named;
import static polymetron.bench.behaviour.Registers.once;

import java.util.Map;
import java.util.Random;

/** Records words around a trigger; software arms it, looks at the record, and may force or end it at any time. */
final class SignalProbeBehaviour implements Behaviour {
    private static final int PARTS = 8;

    private final int width;
    private final int depth;
    private final int before;
    private final int trigger;
    private final int compared;
    private final long[] words;
    private final boolean[] lasts;
    private int next;
    private int count;
    private boolean armed;
    private boolean forced;
    private boolean triggered;
    private boolean full;

    /** What the memory gave at the last edge. */
    private long shown;

    private boolean shownLast;

    // What software wrote.
    private boolean arm;
    private long mask;
    private long value;
    private int index;
    private int part;

    /**
     * @param width of the words, at most 62
     * @param trigger 0 a value under a mask, 1 the end of a packet, 2 software only
     * @param compared bits of the value
     */
    SignalProbeBehaviour(int width, int depth, int before, int trigger, int compared) {
        this.width = width;
        this.depth = depth;
        this.before = before;
        this.trigger = trigger;
        this.compared = compared;
        words = new long[depth];
        lasts = new boolean[depth];
    }

    @Override
    public String module() {
        return "polymetron_signal_probe";
    }

    @Override
    public Map<String, Integer> registers() {
        return Map.of();
    }

    /** Small words fit often; software arms again some time after the record is full. */
    @Override
    public Map<String, Long> inputs(Random random, int cycle) {
        if (full ? once(random, 60) : once(random, 300)) {
            arm = !arm;
        }
        if (once(random, 20)) {
            index = random.nextInt(depth);
            part = once(random, 3) ? random.nextInt(PARTS) : random.nextInt(width / 32 + 1);
        }
        if (once(random, 90)) {
            mask = 1L << random.nextInt(compared) | 1L << random.nextInt(compared);
            value = random.nextLong() & (1L << compared) - 1;
        }
        return named(
                "watched_tdata",
                random.nextLong() & (1L << width) - 1,
                "watched_tvalid",
                bit(!once(random, 3)),
                "watched_tlast",
                bit(once(random, 6)),
                "CONTROL_ARM",
                bit(arm),
                "CONTROL_FORCE_pulse",
                bit(once(random, 150)),
                "MASK_BITS",
                mask,
                "VALUE_BITS",
                value,
                "INDEX_WORD",
                index,
                "PART_NUMBER",
                part,
                "DATA_BITS_taken",
                bit(once(random, 2)));
    }

    @Override
    public Map<String, Long> put(Random random, int cycle) {
        return Map.of();
    }

    @Override
    public Map<String, Long> step(Map<String, Long> in) {
        boolean arms = isSet(in, "CONTROL_ARM");
        boolean comes = isSet(in, "watched_tvalid") && armed && !full;
        boolean forces = isSet(in, "CONTROL_FORCE_pulse");
        boolean triggers = comes && !triggered && count == before && (forced || forces || fits(in));
        int behind = triggers ? 1 : triggered && comes ? count + 1 : 0;
        boolean fills = comes && behind == depth - before;
        Map<String, Long> out =
                named(
                        "watched_tready", 1,
                        "recorded", bit(full),
                        "CONTROL_ARM_load", bit(fills),
                        "CONTROL_ARM_new", 0,
                        "STATUS_TRIGGERED", bit(triggered),
                        "STATUS_FULL", bit(full),
                        "INDEX_WORD_load", in.get("DATA_BITS_taken"),
                        "INDEX_WORD_new", in.get("INDEX_WORD") + 1 & depth - 1,
                        "DATA_BITS", full ? data(in.get("PART_NUMBER").intValue()) : 0);
        int place = next + in.get("INDEX_WORD").intValue() & depth - 1;
        shown = words[place];
        shownLast = lasts[place];
        if (isSet(in, "DATA_BITS_taken")) {
            index = index + 1 & depth - 1;
        }
        if (fills) {
            arm = false;
        }
        forced = forces || forced && !triggers && arms;
        if (arms && !armed) {
            count = 0;
            triggered = false;
            full = false;
        } else if (comes) {
            words[next] = in.get("watched_tdata");
            lasts[next] = isSet(in, "watched_tlast");
            next = next + 1 & depth - 1;
            count = behind > 0 ? behind : Math.min(count + 1, before);
            triggered |= triggers;
            full = fills;
        }
        armed = arms && !fills;
        return out;
    }

    private boolean fits(Map<String, Long> in) {
        return switch (trigger) {
            case 0 -> ((in.get("watched_tdata") ^ in.get("VALUE_BITS")) & in.get("MASK_BITS")) == 0;
            case 1 -> isSet(in, "watched_tlast");
            default -> false;
        };
    }

    /** 32 bits of the word, behind which is the mark of the end of a packet. */
    private long data(int number) {
        long all = shown | bit(shownLast) << width;
        return number > 1 ? 0 : all >>> 32 * number & 0xFFFF_FFFFL;
    }

    @Override
    public void reset() {
        next = 0;
        count = 0;
        armed = false;
        forced = false;
        triggered = false;
        full = false;
        arm = false;
    }
}
