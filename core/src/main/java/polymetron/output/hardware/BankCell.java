package polymetron.output.hardware;

import polymetron.elaborate.Field;
import polymetron.elaborate.Register;
import polymetron.library.HardwareAccess;
import polymetron.library.OnWrite;

/** A field of one register of a row. */
record BankCell(Register register, Field field, int index) {
    String name() {
        return register.name() + "_" + field.name();
    }

    /** Lowest bit of the field's part of a port. */
    int low() {
        return index * field.bits();
    }

    int high() {
        return low() + field.bits() - 1;
    }

    boolean is(HardwareAccess access) {
        return field.type().hardware() == access;
    }

    boolean reads() {
        return field.type().software().reads();
    }

    boolean writes() {
        return field.type().software().writes();
    }

    OnWrite onWrite() {
        return field.type().onWrite();
    }

    /** Whether the bank keeps a value of it. */
    boolean isStored() {
        boolean keeps = writes() && onWrite() != OnWrite.PULSE && onWrite() != OnWrite.HAND_OVER;
        return !is(HardwareAccess.VALUE) && (keeps || !is(HardwareAccess.NONE))
                || keeps && is(HardwareAccess.VALUE);
    }
}
