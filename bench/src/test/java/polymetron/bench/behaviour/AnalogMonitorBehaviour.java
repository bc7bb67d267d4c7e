package polymetron.bench.behaviour;

import static polymetron.bench.behaviour.Registers.bit;
import static polymetron.bench.behaviour.Registers.isSet;
import static polymetron.bench.behaviour.Registers.named;
import static polymetron.bench.behaviour.Registers.once;

import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Random;

/**
 * Channels measured in turn, each in so many cycles; the flags compare what the first one gave: on above their threshold, off again
 * below it by more than the hysteresis.
 */
final class AnalogMonitorBehaviour implements Behaviour {
    /** From the cycle that starts the converter to the one that says it is done. */
    private static final int MEASURE_CYCLES = 51;

    private static final int STEPS = 4096;
    private static final int FLAGS = 4;

    private final int channels;
    private final int[] levels;
    private final int[] values;
    private final long[] thresholds = new long[FLAGS];
    private long hysteresis;
    private int channel;
    private int flags;

    /** Cycles until the converter is done; 0 where it rests. */
    private int left;

    private boolean compares;

    /** The level when the converter takes it, a cycle before it says so. */
    private int measured;

    AnalogMonitorBehaviour(int channels) {
        this.channels = channels;
        levels = new int[channels];
        values = new int[channels];
    }

    @Override
    public String module() {
        return "polymetron_analog_monitor";
    }

    @Override
    public Map<String, Integer> registers() {
        return Map.of("converter.levels", 12 * channels);
    }

    /** Levels and thresholds lie close to one another. */
    @Override
    public Map<String, Long> inputs(Random random, int cycle) {
        if (hysteresis == 0 || once(random, 40)) {
            hysteresis = once(random, 3) ? random.nextInt(STEPS) : random.nextInt(8);
            for (int flag = 0; flag < FLAGS; flag++) {
                long near = levels[0] + random.nextInt(7) - 3 + (once(random, 2) ? hysteresis : 0);
                thresholds[flag] = once(random, 4) ? random.nextInt(2 * STEPS) : Math.max(0, near);
            }
        }
        Map<String, Long> in =
                named(
                        "value", random.nextInt(1 << channels),
                        "CONTROL_ENABLE", bit(!once(random, 30)),
                        "HYSTERESIS_STEPS", hysteresis);
        for (int flag = 0; flag < FLAGS; flag++) {
            in.put("THRESHOLD%d_STEPS".formatted(flag), thresholds[flag]);
        }
        return in;
    }

    @Override
    public Map<String, Long> put(Random random, int cycle) {
        // What the converter sees is what it has when it is done.
        if (cycle % 13 != 0) {
            return Map.of();
        }
        long all = 0;
        for (int at = channels - 1; at >= 0; at--) {
            if (once(random, 4)) {
                levels[at] = random.nextInt(STEPS);
            } else if (once(random, 2)) {
                levels[at] = levels[at] + random.nextInt(5) - 2 & STEPS - 1;
            }
            all = all << 12 | levels[at];
        }
        return Map.of("converter.levels", all);
    }

    @Override
    public Map<String, Long> step(Map<String, Long> in) {
        int next = 0;
        for (int flag = 0; flag < FLAGS; flag++) {
            long threshold = in.get("THRESHOLD%d_STEPS".formatted(flag));
            boolean isOn = (flags >> flag & 1) != 0;
            boolean staysOn = values[0] >= threshold - in.get("HYSTERESIS_STEPS");
            next |= (isOn ? staysOn : values[0] > threshold) ? 1 << flag : 0;
        }
        long shown = 0;
        for (int at = channels - 1; at >= 0; at--) {
            shown = shown << 12 | values[at];
        }
        Map<String, Long> out = new LinkedHashMap<>();
        out.put("FLAGS_ABOVE", (long) flags);
        out.put("PENDING_CHANGED_set", compares ? (long) (next ^ flags) : 0);
        out.put("VALUE_STEPS", shown);
        if (compares) {
            flags = next;
        }
        compares = false;
        if (left > 0) {
            left--;
            if (left == 1) {
                measured = levels[channel];
            }
            if (left == 0) {
                values[channel] = measured;
                compares = channel == 0;
                channel = (channel + 1) % channels;
            }
        } else if (isSet(in, "CONTROL_ENABLE")) {
            left = MEASURE_CYCLES;
        }
        return out;
    }

    @Override
    public void reset() {
        java.util.Arrays.fill(values, 0);
        channel = 0;
        flags = 0;
        left = 0;
        compares = false;
    }
}
