package polymetron.bench.block;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import polymetron.elaborate.Field;
import polymetron.elaborate.Register;
import polymetron.library.OnRead;
import polymetron.library.OnWrite;

/** One register of a row of a bank, and what is stored in it. */
final class BankRegister {
    private static final long LOWER = 0xFFFF_FFFFL;

    private final Register type;
    private final boolean isWhole;
    private final int index;
    private final long reset;
    private final BankField[] fields;
    private final List<Runnable> actions = new ArrayList<>(1);
    private BankCondition selected = BankCondition.ALWAYS;
    private BankCondition[] locks;
    private long value;

    /** Bits that software has read as 1 since they were set last. */
    private long known;

    /** Of a register that is read and written whole: its upper half as it was when the lower one was read. */
    private long upperRead;

    /** What is to be written to its lower half, and which bits of it, as soon as the upper one is. */
    private long lowerWritten;

    private long lowerMask;

    private Consumer<BankField> clearedUnread = field -> {};

    /**
     * @param clockHz clock of the block in hertz, from which some values after reset follow
     */
    BankRegister(Register type, int index, long clockHz) {
        this.type = type;
        this.isWhole = type.type().isWhole();
        this.index = index;
        this.fields = new BankField[type.fields().size()];
        long allBits = 0;
        for (int at = 0; at < fields.length; at++) {
            fields[at] = new BankField(this, type.fields().get(at));
            allBits |= fields[at].mask();
        }
        this.reset = type.reset(clockHz, index) & allBits;
        clear();
    }

    /** Looks up the fields that conditions name, once all of them are there. */
    void resolve(BankCondition.Names names) {
        selected = BankCondition.of(type.type().selectedBy(), true, names);
        locks = new BankCondition[fields.length];
        for (int at = 0; at < fields.length; at++) {
            locks[at] = BankCondition.of(fields[at].type().type().lockedBy(), false, names);
        }
    }

    int index() {
        return index;
    }

    Register type() {
        return type;
    }

    BankField[] fields() {
        return fields;
    }

    Optional<BankField> field(String name) {
        for (BankField field : fields) {
            if (field.type().name().equals(name)) {
                return Optional.of(field);
            }
        }
        return Optional.empty();
    }

    /** The field that a bit is in. */
    Optional<BankField> fieldAt(int bit) {
        for (BankField field : fields) {
            Field place = field.type();
            if (bit >= place.lowBit() && bit < place.lowBit() + place.bits()) {
                return Optional.of(field);
            }
        }
        return Optional.empty();
    }

    /** Whether it is the register at its address now. */
    boolean isSelected() {
        return selected.isTrue();
    }

    void onStored(Runnable action) {
        actions.add(action);
    }

    void clear() {
        value = reset;
        known = 0;
        upperRead = 0;
        lowerWritten = 0;
        lowerMask = 0;
    }

    /** What is told of an event that software clears without having read it. */
    void onClearedUnread(Consumer<BankField> action) {
        clearedUnread = action;
    }

    /** Something happens that bits say: what was read of them before is not about that. */
    void happens(long bits) {
        store(-1, bits);
        known &= ~bits;
    }

    long stored() {
        return value;
    }

    void store(long bits, long mask) {
        value = value & ~mask | bits & mask;
    }

    /**
     * Software reads some bits of it, with all that reading does.
     *
     * @param mask bits that are read
     */
    long access(long mask) {
        if (!isWhole) {
            long seen = read();
            take(mask);
            return seen;
        }
        if ((mask & LOWER) == 0) {
            return upperRead;
        }
        long seen = read();
        upperRead = seen & ~LOWER;
        take(-1);
        return seen;
    }

    /**
     * Software writes some bits of it, which count now, or with those of the other half.
     *
     * @param half all bits of the half that is written
     * @param mask bits of the bytes that are written
     */
    void access(long written, long mask, long half) {
        if (!isWhole) {
            write(written, mask);
        } else if ((half & LOWER) != 0) {
            lowerWritten = lowerWritten & ~mask | written & mask;
            lowerMask |= mask;
        } else {
            long bits = lowerMask | mask;
            lowerMask = 0;
            write(written & ~LOWER | lowerWritten, bits);
        }
    }

    /** What software reads of it. */
    long read() {
        long seen = 0;
        for (BankField field : fields) {
            seen |= field.seen();
        }
        return seen;
    }

    /**
     * Does what reading does besides.
     *
     * @param mask bits that are read
     */
    void take(long mask) {
        known |= value & mask;
        for (BankField field : fields) {
            OnRead onRead = field.type().type().onRead();
            if (onRead == OnRead.NONE || (field.mask() & mask) == 0) {
                continue;
            }
            if (onRead == OnRead.CLEAR) {
                store(0, field.mask());
            } else {
                field.take();
            }
        }
    }

    /**
     * Software writes it.
     *
     * @param mask bits of the bytes that are written
     */
    void write(long written, long mask) {
        boolean isStored = false;
        long told = 0;
        for (int at = 0; at < fields.length; at++) {
            BankField field = fields[at];
            long touched = field.mask() & mask;
            if (touched == 0 || !field.type().type().software().writes() || locks[at].isTrue()) {
                continue;
            }
            switch (field.type().type().onWrite()) {
                case STORE -> {
                    field.settle();
                    store(written, touched);
                    isStored = true;
                }
                case CLEAR_ONES -> {
                    if ((value & written & touched & ~known) != 0) {
                        clearedUnread.accept(field);
                    }
                    store(0, written & touched);
                }
                case SET_ONES -> store(-1, written & touched);
                case PULSE, HAND_OVER -> told |= 1L << at;
            }
        }
        if (isStored) {
            actions.forEach(Runnable::run);
        }
        for (int at = 0; at < fields.length; at++) {
            if ((told >>> at & 1) != 0) {
                tell(fields[at], written & mask);
            }
        }
    }

    private static void tell(BankField field, long written) {
        long part = (written & field.mask()) >>> field.type().lowBit();
        if (part != 0 || field.type().type().onWrite() == OnWrite.HAND_OVER) {
            field.write(part);
        }
    }
}
