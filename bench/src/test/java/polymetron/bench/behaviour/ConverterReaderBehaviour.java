package polymetron.bench.behaviour;

import static polymetron.bench.behaviour.Registers.any;
import static polymetron.bench.behaviour.Registers.bit;
import static polymetron.bench.behaviour.Registers.isSet;
import static polymetron.bench.behaviour.Registers.named;
import static polymetron.bench.behaviour.Registers.once;

import java.util.ArrayDeque;
import java.util.Deque;
import java.util.Map;
import java.util.Random;

/**
 * Readings of a converter: half a period of the serial clock of rest, two for each bit of each channel, and one of rest again; bits
 * are taken at the end of each first half. Samples wait for the stream, and one without room is lost.
 */
final class ConverterReaderBehaviour implements Behaviour {
    private static final long LONGEST = 0xFF_FFFFL;

    private final int channels;
    private final int sampleBits;
    private final int halfCycles;
    private final boolean restsHigh;
    private final boolean shiftsFirst;
    private final int room;
    private final Deque<Long> waiting = new ArrayDeque<>();
    private final long[] latest;

    /** Cycles since it was selected; -1 at rest. */
    private int selectedFor;

    private boolean runs;
    private long passed;
    private long shift;
    private int channel;
    private boolean isWhole;
    private long period = 1;
    private boolean enabled = true;
    private int slow = 1;

    ConverterReaderBehaviour(int channels, int sampleBits, int divider, int mode) {
        this.channels = channels;
        this.sampleBits = sampleBits;
        halfCycles = divider / 2;
        restsHigh = (mode & 2) != 0;
        shiftsFirst = (mode & 1) != 0;
        room = channels == 1 ? 2 : Integer.highestOneBit(2 * channels - 1);
        latest = new long[channels];
    }

    @Override
    public String module() {
        return "polymetron_converter_reader";
    }

    @Override
    public Map<String, Integer> registers() {
        return Map.of("passed", 24);
    }

    @Override
    public Map<String, Long> inputs(Random random, int cycle) {
        if (once(random, 300)) {
            period = once(random, 3) ? any(random, 24) : random.nextInt(2000);
            slow = 1 + random.nextInt(3) * random.nextInt(200);
        }
        if (once(random, enabled ? 900 : 200)) {
            enabled = !enabled;
        }
        return named(
                "samples_tready", bit(once(random, slow)),
                "from_device", bit(once(random, 2)),
                "CONTROL_ENABLE", bit(enabled),
                "PERIOD_CYCLES", period);
    }

    /** Shortly before the next reading, and before the end of what can be counted. */
    @Override
    public Map<String, Long> put(Random random, int cycle) {
        if (!once(random, 100)) {
            return Map.of();
        }
        passed =
                switch (random.nextInt(4)) {
                    case 0 -> LONGEST - random.nextInt(3);
                    case 1 -> any(random, 24);
                    default -> Math.max(0, period - random.nextInt(4));
                };
        return Map.of("passed", passed);
    }

    @Override
    public Map<String, Long> step(Map<String, Long> in) {
        int half = selectedFor < 0 ? -1 : selectedFor / halfCycles - 1;
        int shiftHalves = 2 * sampleBits * channels;
        boolean shifts = selectedFor >= 0 && half >= 0 && half < shiftHalves;
        boolean isSecond = half % 2 != 0;
        Map<String, Long> out =
                named(
                        "samples_tvalid", bit(!waiting.isEmpty()),
                        "clock", bit(restsHigh != (shifts && isSecond != shiftsFirst)),
                        "select__", bit(selectedFor < 0),
                        "to_device", 0,
                        "STATUS_LOST_set", bit(isWhole && waiting.size() == room));
        if (!waiting.isEmpty()) {
            out.put("samples_tdata", waiting.peek() >>> 1);
            out.put("samples_tlast", waiting.peek() & 1);
        }
        if (channels <= 2) {
            out.put("LATEST_VALUE", latest[0] | (channels == 2 ? latest[1] << 32 : 0));
        }
        boolean isLast = channel == channels - 1;
        boolean goes = !waiting.isEmpty() && isSet(in, "samples_tready");
        boolean comes = isWhole && waiting.size() < room;
        if (goes) {
            waiting.remove();
        }
        if (isWhole) {
            long word = shift << Long.SIZE - sampleBits >> Long.SIZE - sampleBits & 0xFFFF_FFFFL;
            if (comes) {
                waiting.add(word << 1 | bit(isLast));
            }
            latest[channel] = word;
            channel = isLast ? 0 : channel + 1;
        }
        boolean starts =
                isSet(in, "CONTROL_ENABLE")
                        && selectedFor < 0
                        && (!runs || passed >= in.get("PERIOD_CYCLES"));
        boolean isHalfOver = (selectedFor + 1) % halfCycles == 0;
        isWhole = false;
        if (shifts && isHalfOver) {
            if (!isSecond) {
                shift = (shift << 1 | in.get("from_device")) & (1L << sampleBits) - 1;
            }
            isWhole = (half + 1) % (2 * sampleBits) == 0;
        }
        if (!isSet(in, "CONTROL_ENABLE") && selectedFor < 0) {
            runs = false;
        }
        passed = Math.min(passed + 1, LONGEST);
        if (starts) {
            runs = true;
            passed = 1;
            selectedFor = 0;
        } else if (selectedFor >= 0) {
            selectedFor++;
            if (selectedFor == (shiftHalves + 2) * halfCycles) {
                selectedFor = -1;
            }
        }
        return out;
    }

    @Override
    public void reset() {
        waiting.clear();
        java.util.Arrays.fill(latest, 0);
        selectedFor = -1;
        runs = false;
        passed = 0;
        shift = 0;
        channel = 0;
        isWhole = false;
    }
}
