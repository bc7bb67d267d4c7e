package polymetron.bench.behaviour;

import static polymetron.bench.behaviour.Registers.any;
import static polymetron.bench.behaviour.Registers.bit;
import static polymetron.bench.behaviour.Registers.isSet;
import static polymetron.bench.behaviour.Registers.named;
import static polymetron.bench.behaviour.Registers.once;
import static polymetron.bench.behaviour.Registers.word;

import java.util.Map;
import java.util.Random;
import java.util.TreeMap;

/**
 * Seconds by pulses: one counts a second behind the last one or where this second ends, give or take a window; without one a
 * second ends when the window has passed.
 */
final class PulseTimestampBehaviour implements Behaviour {
    /** So short that no run of short seconds gets it below the window. */
    private static final long LEAST_WINDOWS = 40;

    private final long nominal;
    private final long window;

    /** The pulse as it was one, two and three edges ago. */
    private boolean first;

    private boolean level;
    private boolean was;
    private boolean follows;
    private long passed;
    private long since;
    private long length;
    private long held;

    PulseTimestampBehaviour(long nominal, long window) {
        this.nominal = nominal;
        this.window = window;
    }

    @Override
    public String module() {
        return "polymetron_pps_timestamp";
    }

    @Override
    public Map<String, Integer> registers() {
        return new TreeMap<>(
                Map.of("passed", 32, "since", 32, "LENGTH_CYCLES", 32, "CYCLES_CYCLES", 32));
    }

    @Override
    public Map<String, Long> inputs(Random random, int cycle) {
        return named(
                "pulse", bit(once(random, 2)),
                "CONTROL_ENABLE", bit(!once(random, 9)),
                "SECONDS_SECONDS_taken", bit(once(random, 3)));
    }

    /** Lengths of all sizes, and places on both sides of each edge of the window. */
    @Override
    public Map<String, Long> put(Random random, int cycle) {
        if (!once(random, 4)) {
            return Map.of();
        }
        length = LEAST_WINDOWS * window + any(random, 32) % (1L << 31);
        passed = near(random);
        since = near(random);
        held = any(random, 32);
        return named(
                "passed", passed, "since", since, "LENGTH_CYCLES", length, "CYCLES_CYCLES", held);
    }

    private long near(Random random) {
        long off = random.nextInt(5) - 3;
        return switch (random.nextInt(6)) {
            case 0 -> word(length + off);
            case 1 -> word(length - window + off);
            case 2 -> word(length + window + off);
            case 3 -> word(length + any(random, 32) % (2 * window + 1) - window);
            case 4 -> any(random, 32);
            default -> any(random, 32) % (length + 1);
        };
    }

    @Override
    public Map<String, Long> step(Map<String, Long> in) {
        boolean enabled = isSet(in, "CONTROL_ENABLE");
        boolean begins = level && !was && enabled;
        long now = word(passed + 1);
        long interval = word(since + 1);
        boolean isInterval = follows && isWithin(interval);
        boolean believed = begins && (!follows || isInterval || isWithin(now));
        boolean waits = enabled && follows;
        boolean missed = !believed && now >= (waits ? length + window : length);
        Map<String, Long> out =
                named(
                        "STATUS_PULSE_set", bit(believed || missed),
                        "STATUS_MISSED_set", bit(missed && waits),
                        "STATUS_STRAY_set", bit(begins && !believed),
                        "SECONDS_SECONDS_count", bit(believed || missed),
                        "CYCLES_CYCLES", held,
                        "LENGTH_CYCLES", length);
        if (isSet(in, "SECONDS_SECONDS_taken")) {
            held = passed;
        }
        // A second that ended without its pulse had begun before the window.
        passed = believed ? 0 : missed ? (waits ? window : 0) : now;
        // Further than it matters it need not count.
        since = begins ? 0 : since > length + window ? since : interval;
        if (begins && isInterval) {
            length = interval;
        }
        follows |= believed;
        was = level;
        level = first;
        first = isSet(in, "pulse");
        return out;
    }

    private boolean isWithin(long cycles) {
        return Math.abs(cycles - length) <= window;
    }

    @Override
    public void reset() {
        first = false;
        level = false;
        was = false;
        follows = false;
        passed = 0;
        since = 0;
        length = nominal;
        held = 0;
    }
}
