package polymetron.bench.block;

import java.util.ArrayDeque;
import java.util.Deque;
import java.util.Map;
import polymetron.bench.part.SpiPart;
import polymetron.bench.stream.SourcePort;
import polymetron.bench.stream.StreamWord;

/** Shifts one word of each channel in every so many cycles; a sample without room is lost. */
public final class ConverterReaderModel extends StreamModel {
    private final int channels;
    private final int bits;
    private final int half;
    private final boolean polarity;
    private final boolean phase;
    private final int room;
    private final BankField enable;
    private final BankField period;
    private final BankField lost;
    private final int[] latest;
    private final SourcePort samples = new SourcePort();
    private final Deque<StreamWord> waiting = new ArrayDeque<>();
    private SpiPart part;
    private boolean runs;

    /** Edges since the reading began. */
    private long passed;

    /** The channel that is shifted in; none where it is the number of channels. */
    private int channel;

    private boolean reads;
    private long left;

    /**
     * @param bits bits of a word
     * @param divider cycles of a period of the serial clock
     * @param mode polarity in bit 1, phase in bit 0
     */
    ConverterReaderModel(RegisterBank bank, int channels, int bits, int divider, int mode) {
        super(bank);
        this.channels = channels;
        this.bits = bits;
        half = divider / 2;
        polarity = (mode & 2) != 0;
        phase = (mode & 1) != 0;
        room = Math.max(2, Integer.highestOneBit(Math.max(1, 2 * channels - 1)));
        latest = new int[channels];
        enable = bank.field("CONTROL", "ENABLE");
        period = bank.field("PERIOD", "CYCLES");
        lost = bank.field("STATUS", "LOST");
        for (int at = 0; at < channels; at++) {
            int each = at;
            bank.row("LATEST", at, "VALUE").gives(() -> latest[each]);
        }
        clear();
    }

    /** Puts a part on its wires. */
    public void attach(SpiPart converter) {
        part = converter;
        wires(false, polarity);
    }

    /** The part that is on its wires; null for none. */
    public SpiPart part() {
        return part;
    }

    @Override
    protected void powerUp() {
        if (part != null) {
            part.reset();
            wires(false, polarity);
        }
    }

    private boolean wires(boolean selected, boolean clock) {
        return part != null && part.wires(selected, clock, false);
    }

    @Override
    public Map<String, SourcePort> sources() {
        return Map.of("samples", samples);
    }

    @Override
    public void edge() {
        boolean full = waiting.size() >= room;
        if (samples.isTaken()) {
            waiting.remove();
        }
        boolean starts = !reads && enable.isSet() && (!runs || passed >= period.get());
        passed = starts ? 1 : passed + 1;
        if (starts) {
            begin();
        } else if (reads) {
            left--;
            if (left == 0) {
                next(full);
            }
        } else if (!enable.isSet()) {
            runs = false;
        }
        samples.offer(waiting.peek());
    }

    private void begin() {
        runs = true;
        reads = true;
        channel = 0;
        // Half a period to begin with, the bits, and a cycle to hand the word over.
        left = (long) half * (1 + 2 * bits) + 1;
        wires(true, polarity);
    }

    private void next(boolean full) {
        if (channel < channels) {
            word(full);
            channel++;
            left = channel < channels ? 2L * half * bits : half - 1;
        }
        if (channel == channels && left == 0) {
            reads = false;
            wires(false, polarity);
        }
    }

    private void word(boolean full) {
        int shift = 0;
        for (int bit = 0; bit < bits; bit++) {
            boolean in = wires(true, polarity != phase);
            shift = shift << 1 | (in ? 1 : 0);
            wires(true, polarity == phase);
        }
        wires(true, polarity);
        int value = shift << 32 - bits >> 32 - bits;
        latest[channel] = value;
        if (full) {
            lost.set(1);
        } else {
            waiting.add(StreamWord.of(value, channel == channels - 1));
        }
    }

    @Override
    public long quietFor() {
        if (reads) {
            return left - 1;
        }
        if (!enable.isSet()) {
            return runs ? 0 : FOREVER;
        }
        return runs ? Math.max(0, period.get() - passed) : 0;
    }

    @Override
    public void skip(long edges) {
        passed += edges;
        if (reads) {
            left -= edges;
        }
    }

    @Override
    public void resetStream() {
        waiting.clear();
        java.util.Arrays.fill(latest, 0);
        runs = false;
        reads = false;
        passed = 0;
        samples.offer(null);
    }
}
