package polymetron.output.hardware;

import java.util.ArrayList;
import java.util.List;
import polymetron.elaborate.Register;

/** A word of the bus that has bits of a register. */
record BankPlace(Register register, int index, long word) {
    /** How far the register's lowest bit is above that of the word; negative for the upper words of a wide one. */
    int shift() {
        return (int) (8 * (register.offset(index) - word));
    }

    /** Whether it has the upper half of a register that is read and written whole. */
    boolean isUpperHalf() {
        return register.type().isWhole() && word > register.offset(index);
    }

    boolean isLowerHalf() {
        return register.type().isWhole() && word == register.offset(index);
    }

    String name() {
        String element = register.isRow() ? register.name() + "_" + index : register.name();
        return word > register.offset(index) ? element + "_upper" : element;
    }

    /** The words that have bits of one register of a row, the lowest first. */
    static List<BankPlace> of(Register register, int index) {
        List<BankPlace> places = new ArrayList<>();
        long first = register.offset(index) & ~3L;
        for (int at = 0; at < Math.max(1, register.width() / Integer.SIZE); at++) {
            places.add(new BankPlace(register, index, first + 4L * at));
        }
        return places;
    }
}
