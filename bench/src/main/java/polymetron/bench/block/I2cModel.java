package polymetron.bench.block;

import java.util.ArrayList;
import java.util.List;
import polymetron.bench.part.I2cPart;

/**
 * Two-wire bus as a controller: a command is a start, a byte with its acknowledgement and a stop, in this order, and ends after the
 * cycles that its phases take. There is no other controller on the bus, and no device holds the clock line.
 */
public final class I2cModel extends BankModel {
    private static final int START = 1;
    private static final int WRITE = 2;
    private static final int READ = 4;
    private static final int LAST = 8;
    private static final int STOP = 16;
    private static final int BITS = 9;

    /** Until the clock line that was released is seen to be high: two flip-flops, what is compared, and the phase itself. */
    private static final int SEEN = 4;

    private final int filter;
    private final List<I2cPart> parts = new ArrayList<>();
    private final BankField enable;
    private final BankField data;
    private final BankField low;
    private final BankField high;
    private final BankField done;

    /** What software has written of a command in this access. */
    private int given;

    private long written;
    private int command;

    /** When the byte of the command has been acknowledged, and when the command ends. */
    private long byteEnds;

    private long ends;
    private boolean owned;
    private boolean refused;

    /** When the last start and the last stop are seen on the lines. */
    private long takenAt;

    private long freeAt;

    I2cModel(RegisterBank bank, int filter) {
        super(bank);
        this.filter = filter;
        enable = bank.field("CONTROL", "ENABLE").onStored(this::switched);
        data = bank.field("DATA", "BYTE");
        low = bank.field("LOW", "CYCLES");
        high = bank.field("HIGH", "CYCLES");
        done = bank.field("PENDING", "DONE");
        bank.field("STATUS", "BUSY").gives(() -> ends == NEVER ? 0 : 1);
        bank.field("STATUS", "REFUSED").gives(() -> refused ? 1 : 0);
        bank.field("STATUS", "LOST").gives(() -> 0);
        bank.field("STATUS", "TAKEN").gives(() -> isTaken() ? 1 : 0);
        bank.field("COMMAND", "START").onWritten(ones -> pulse(START));
        bank.field("COMMAND", "WRITE").onWritten(ones -> pulse(WRITE));
        bank.field("COMMAND", "READ").onWritten(ones -> pulse(READ));
        bank.field("COMMAND", "LAST").onWritten(ones -> pulse(LAST));
        bank.field("COMMAND", "STOP").onWritten(ones -> pulse(STOP));
        clear();
    }

    /** Puts a part on the bus. */
    public void attach(I2cPart part) {
        parts.add(part);
    }

    @Override
    protected void clear() {
        super.clear();
        given = 0;
        ends = NEVER;
        byteEnds = NEVER;
        owned = false;
        refused = false;
        takenAt = NEVER;
        freeAt = 0;
    }

    @Override
    protected void powerUp() {
        parts.forEach(I2cPart::reset);
    }

    private boolean isTaken() {
        return now() >= takenAt && (now() < freeAt || freeAt <= takenAt);
    }

    private void pulse(int step) {
        given |= step;
        written = now();
    }

    private void switched() {
        if (!enable.isSet()) {
            ends = NEVER;
            byteEnds = NEVER;
            owned = false;
            refused = false;
        }
    }

    /** Fields of a command are written one by one; it begins once all of them are. */
    private void begin() {
        int wanted = given;
        given = 0;
        if ((wanted & ~LAST) == 0 || ends != NEVER || !enable.isSet()) {
            return;
        }
        command = wanted;
        refused = false;
        long rises = SEEN + filter;
        long cycles = 0;
        if ((command & START) != 0) {
            // A stop of before has to be seen first.
            long waits = 1 + Math.max(0, freeAt - written);
            cycles += owned ? lowCycles() + rises : waits;
            cycles += highCycles();
            if (!owned) {
                takenAt = written + cycles + rises;
            }
            cycles += highCycles();
        }
        if ((command & (WRITE | READ)) != 0) {
            cycles += BITS * (lowCycles() + rises + highCycles());
        }
        byteEnds = written + cycles;
        if ((command & STOP) != 0) {
            cycles += lowCycles() + rises + 2 * highCycles();
            freeAt = written + cycles - highCycles() + rises;
        }
        ends = written + cycles;
    }

    private long lowCycles() {
        return Math.max(1, low.get() >> 1) + Math.max(1, low.get() - (low.get() >> 1));
    }

    private long highCycles() {
        return Math.max(1, high.get());
    }

    @Override
    public long nextEvent() {
        return Math.min(byteEnds, ends);
    }

    @Override
    protected void run() {
        begin();
        if (byteEnds <= now()) {
            byteEnds = NEVER;
            exchange();
        }
        if (ends <= now()) {
            ends = NEVER;
            if ((command & STOP) != 0) {
                parts.forEach(I2cPart::stop);
                owned = false;
            }
            done.set(1);
        }
    }

    private void exchange() {
        if ((command & START) != 0) {
            parts.forEach(I2cPart::start);
            owned = true;
        }
        if ((command & WRITE) != 0) {
            refused = true;
            for (I2cPart part : parts) {
                refused &= !part.write((int) data.get());
            }
            owned = true;
        } else if ((command & READ) != 0) {
            int value = 0xFF;
            for (I2cPart part : parts) {
                value &= part.read((command & LAST) == 0);
            }
            data.put(value);
            owned = true;
        }
    }
}
