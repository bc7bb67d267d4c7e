package polymetron.bench.block;

/**
 * Measures channels one after the other, over and over. Nothing is done for a measurement that finds what was found before: what a
 * channel showed last follows from the time.
 */
public final class AnalogMonitorModel extends BankModel {
    /** Cycles of a measurement, and the one of them at which it is stored. */
    private static final int CYCLES = 52;

    private static final int STORED_AFTER = 51;
    private static final int FLAGS = 4;

    private final int channels;
    private final BankField enable;
    private final BankField hysteresis;
    private final BankField changed;
    private final BankField[] thresholds = new BankField[FLAGS];
    private final int[] levels;
    private final int[] values;

    /** The cycle in which measurement 0 began, and the channel of that. */
    private long began;

    private int firstChannel;

    /** Measurements of this row that are stored. */
    private long measured;

    private boolean measures;
    private int flags;

    AnalogMonitorModel(RegisterBank bank, int channels) {
        super(bank);
        this.channels = channels;
        levels = new int[channels];
        values = new int[channels];
        enable = bank.field("CONTROL", "ENABLE").onStored(this::switched);
        hysteresis = bank.field("HYSTERESIS", "STEPS");
        changed = bank.field("PENDING", "CHANGED");
        bank.field("FLAGS", "ABOVE").gives(() -> flags);
        for (int flag = 0; flag < FLAGS; flag++) {
            thresholds[flag] = bank.field("THRESHOLD" + flag, "STEPS");
        }
        for (int channel = 0; channel < channels; channel++) {
            int each = channel;
            bank.row("VALUE", channel, "STEPS").gives(() -> values[each]);
        }
        clear();
    }

    public int channels() {
        return channels;
    }

    /** Sets the voltage at a channel, in 4096ths of the full scale. */
    public void setLevel(int channel, int steps) {
        levels[channel] = Math.clamp(steps, 0, (1 << 12) - 1);
    }

    /** What a channel has, in 4096ths of the full scale. */
    public int level(int channel) {
        return levels[channel];
    }

    @Override
    protected void clear() {
        super.clear();
        java.util.Arrays.fill(values, 0);
        flags = 0;
        measures = false;
        firstChannel = 0;
        measured = 0;
        switched();
    }

    private void switched() {
        if (enable.isSet() && !measures) {
            measures = true;
            firstChannel = (int) ((firstChannel + measured) % channels);
            measured = 0;
            began = now() + 1;
        }
    }

    private int channelOf(long measurement) {
        return (int) ((firstChannel + measurement) % channels);
    }

    @Override
    protected void run() {
        if (!measures) {
            return;
        }
        long done = now() < began + STORED_AFTER ? 0 : (now() - began - STORED_AFTER) / CYCLES + 1;
        if (!enable.isSet()) {
            // The one under way is finished.
            done = Math.min(done, measured + 1);
        }
        // All that lie further back find the same levels.
        for (long at = Math.max(measured, done - channels); at < done; at++) {
            values[channelOf(at)] = levels[channelOf(at)];
        }
        boolean isFinished = done > measured;
        measured = done;
        if (!enable.isSet() && isFinished) {
            measures = false;
        }
        // Flags follow a cycle later.
        if (comparedAt(lastOfFirst()) <= now()) {
            compare();
        }
    }

    /** The last stored measurement of channel 0; negative for none. */
    private long lastOfFirst() {
        long last = measured - 1;
        return last - Math.floorMod(channelOf(Math.max(0, last)), channels);
    }

    private long comparedAt(long measurement) {
        return measurement < 0 ? NEVER : began + CYCLES * measurement + CYCLES;
    }

    private void compare() {
        int next = flagsFor(values[0]);
        changed.set(next ^ flags);
        flags = next;
    }

    private int flagsFor(int value) {
        int next = 0;
        for (int flag = 0; flag < FLAGS; flag++) {
            boolean isOn = (flags >> flag & 1) != 0;
            long threshold = thresholds[flag].get();
            if (isOn ? value + hysteresis.get() >= threshold : value > threshold) {
                next |= 1 << flag;
            }
        }
        return next;
    }

    /** Only a measurement that changes a flag is an event. */
    @Override
    public long nextEvent() {
        if (!measures || flagsFor(levels[0]) == flags && flagsFor(values[0]) == flags) {
            return NEVER;
        }
        long of = Math.max(0, lastOfFirst());
        while (comparedAt(of) <= now() || channelOf(of) != 0) {
            of++;
        }
        return comparedAt(of);
    }
}
