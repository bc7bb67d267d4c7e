package polymetron.bench.block;

import java.util.function.LongConsumer;
import java.util.function.LongSupplier;
import polymetron.elaborate.Field;
import polymetron.library.HardwareAccess;
import polymetron.library.OnWrite;

/**
 * A field of one register of a bank, as the block sees it: the value, and what the block does when software writes it or
 * takes it.
 */
final class BankField {
    private final BankRegister register;
    private final Field type;
    private final long ones;
    private LongSupplier given;
    private LongSupplier givenBefore;
    private LongConsumer written = value -> {};
    private Runnable taken = () -> {};

    BankField(BankRegister register, Field type) {
        this.register = register;
        this.type = type;
        this.ones = type.implemented(register.index());
    }

    Field type() {
        return type;
    }

    /** The bits that there are, within the register. */
    long mask() {
        return ones << type.lowBit();
    }

    // --- for the model

    /** The block gives the value, each time it is read. */
    BankField gives(LongSupplier value) {
        given = value;
        return this;
    }

    /**
     * What it gives before what happens in the cycle of a write, where that is not the same: bytes that are not written keep
     * it.
     */
    BankField givesBefore(LongSupplier value) {
        givenBefore = value;
        return this;
    }

    /** What the block does with what software hands over, or with the ones of a pulse. */
    BankField onWritten(LongConsumer action) {
        written = action;
        return this;
    }

    /** What the block does when software takes the value by reading it. */
    BankField onTaken(Runnable action) {
        taken = action;
        return this;
    }

    /** What the block does after software stored something in the register of the field. */
    BankField onStored(Runnable action) {
        register.onStored(action);
        return this;
    }

    /** The value that the field has now. */
    long get() {
        return given == null ? stored() : given.getAsLong() & ones;
    }

    boolean isSet() {
        return get() != 0;
    }

    /** Stores a value, as the block does in what it loads or counts. */
    void put(long value) {
        register.store(value << type.lowBit(), mask());
    }

    /**
     * Sets bits, as something that happens does. A cycle in which software reads or writes begins with what happened until
     * then, and what happens in that cycle is set after it: clearing never loses an event.
     */
    void set(long bits) {
        register.happens(bits << type.lowBit() & mask());
    }

    /** Register and field, as a person calls them. */
    String name() {
        return register.type().name(register.index()) + "." + type.name();
    }

    /** What is stored, whatever the block gives. */
    long stored() {
        return register.stored() >>> type.lowBit() & ones;
    }

    // --- for the bank

    /** What software reads of it, in its place in the register. */
    long seen() {
        if (!type.type().software().reads()) {
            return 0;
        }
        OnWrite onWrite = type.type().software().writes() ? type.type().onWrite() : OnWrite.STORE;
        boolean keepsNothing =
                onWrite == OnWrite.PULSE
                        || onWrite == OnWrite.HAND_OVER
                                && type.type().hardware() == HardwareAccess.NONE;
        return keepsNothing ? 0 : get() << type.lowBit();
    }

    void write(long value) {
        written.accept(value);
    }

    void take() {
        taken.run();
    }

    /** What the block gives becomes what is stored, so that a write of some bytes leaves the others. */
    void settle() {
        if (given != null) {
            put((givenBefore == null ? given : givenBefore).getAsLong());
        }
    }
}
