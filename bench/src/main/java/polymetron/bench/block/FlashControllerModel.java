package polymetron.bench.block;

import polymetron.bench.hart.Memory;
import polymetron.bench.part.FlashChip;

/**
 * Commands for a serial flash, byte by byte. Reads of its memory range need no command on the bench: they cost what they cost, and find
 * what the commands have left there.
 */
public final class FlashControllerModel extends BankModel {
    /** Cycles that the chip takes for a reset. */
    private static final int PAUSE = 8192;

    private static final int BITS = 8;

    /** A byte and a clock without select. */
    private static final int CLOCKS = 9;

    private final BankField commands;
    private final BankField select;
    private final BankField value;
    private final BankField done;
    private final int divider;
    private final boolean fourLines;
    private final long sizeBytes;
    private final double clockHz;
    private FlashChip chip;

    /** When the bytes after the reset are through, and when the byte under way is. */
    private long readyAt;

    private long endsAt;
    private int sends;
    private boolean asked;

    FlashControllerModel(RegisterBank bank, int divider, int lines, long sizeBytes, long clockHz) {
        super(bank);
        this.divider = divider;
        this.fourLines = lines == 4;
        this.sizeBytes = sizeBytes;
        this.clockHz = Math.max(1, clockHz);
        commands = bank.field("CONTROL", "COMMANDS").onStored(this::selects);
        select = bank.field("CONTROL", "SELECT");
        bank.field("STATUS", "BUSY").gives(() -> isBusy() ? 1 : 0);
        value = bank.field("BYTE", "VALUE").onStored(this::send);
        done = bank.field("PENDING", "DONE");
        clear();
    }

    /**
     * Puts the chip on it whose bytes the memory range shows.
     *
     * @param changed told when they have changed
     */
    public void connect(Memory memory, Runnable changed) {
        chip = new FlashChip(memory, sizeBytes, changed);
        chip.reset(fourLines);
    }

    @Override
    protected void clear() {
        super.clear();
        readyAt = PAUSE + (long) (fourLines ? 6 : 3) * (1 + CLOCKS * divider);
        endsAt = NEVER;
        asked = false;
        if (chip != null) {
            chip.reset(fourLines);
        }
    }

    /** The value is there a cycle after it is no longer busy. */
    private boolean isBusy() {
        return asked || endsAt != NEVER && endsAt > now() + 1;
    }

    private double seconds() {
        return now() / clockHz;
    }

    private void selects() {
        if (chip != null) {
            chip.select(commands.isSet() && select.isSet(), seconds());
        }
        if (asked) {
            begin();
        }
    }

    private void send() {
        asked = true;
        sends = (int) value.get();
        begin();
    }

    /** A byte waits until software has the chip. */
    private void begin() {
        if (commands.isSet()) {
            asked = false;
            endsAt = Math.max(now(), readyAt) + 2 + (long) BITS * divider;
        }
    }

    @Override
    public long nextEvent() {
        return endsAt;
    }

    @Override
    protected void run() {
        if (now() >= endsAt) {
            endsAt = NEVER;
            value.put(chip == null ? 0 : chip.exchange(sends, seconds()));
            done.set(1);
        }
    }
}
