package polymetron.bench.block;

import java.util.ArrayDeque;
import java.util.Deque;

/** Seconds that begin with a pulse, or when the window for one has passed. */
public final class PpsTimestampModel extends BankModel {
    /** From an edge of the pulse to what it does: two flip-flops, and the one that tells an edge. */
    private static final int SEEN_AFTER = 3;

    private static final long LOW = 0xFFFF_FFFFL;

    private final long nominal;
    private final long window;
    private final BankField enable;
    private final BankField pulse;
    private final BankField missed;
    private final BankField stray;
    private final BankField seconds;
    private final Deque<Long> pulses = new ArrayDeque<>();
    private boolean level;
    private boolean follows;

    /** Cycle at which the second began, and that of the last pulse. */
    private long began;

    private long lastPulse;
    private long length;
    private long held;

    /**
     * @param nominal cycles of a second until the first pulse
     * @param window cycles that a pulse may be early or late
     */
    PpsTimestampModel(RegisterBank bank, long nominal, long window) {
        super(bank);
        this.nominal = nominal;
        this.window = window;
        enable = bank.field("CONTROL", "ENABLE");
        pulse = bank.field("STATUS", "PULSE");
        missed = bank.field("STATUS", "MISSED");
        stray = bank.field("STATUS", "STRAY");
        seconds = bank.field("SECONDS", "SECONDS").onTaken(() -> held = now() - began);
        bank.field("CYCLES", "CYCLES").gives(() -> held);
        bank.field("LENGTH", "CYCLES").gives(() -> length);
        clear();
    }

    @Override
    protected void clear() {
        super.clear();
        pulses.clear();
        follows = false;
        began = 0;
        lastPulse = 0;
        length = nominal;
        held = 0;
    }

    /** Sets the level of the pulse that the receiver gives. */
    public void setPulse(boolean high) {
        if (high && !level) {
            pulses.add(now() + SEEN_AFTER);
        }
        level = high;
    }

    private long endsAt() {
        return began + length + (enable.isSet() && follows ? window : 0);
    }

    @Override
    public long nextEvent() {
        return pulses.isEmpty() ? endsAt() : Math.min(pulses.peek(), endsAt());
    }

    @Override
    protected void run() {
        for (long at = nextEvent(); at <= now(); at = nextEvent()) {
            boolean isPulse = !pulses.isEmpty() && pulses.peek() == at;
            if (isPulse) {
                pulses.remove();
            }
            boolean begins = isPulse && enable.isSet();
            boolean isInterval = follows && isNear(at - lastPulse);
            boolean believed = begins && (!follows || isInterval || isNear(at - began));
            if (begins && !believed) {
                stray.set(1);
            }
            if (begins && isInterval) {
                length = at - lastPulse;
            }
            if (begins) {
                lastPulse = at;
            }
            if (believed) {
                follows = true;
                begin(at);
            } else if (at >= endsAt()) {
                boolean misses = enable.isSet() && follows;
                if (misses) {
                    missed.set(1);
                }
                begin(misses ? at - window : at);
            }
        }
    }

    private boolean isNear(long cycles) {
        return cycles >= length - window && cycles <= length + window;
    }

    private void begin(long at) {
        began = at;
        pulse.set(1);
        seconds.put(seconds.get() + 1 & LOW);
    }
}
