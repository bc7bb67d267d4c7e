package polymetron.bench.foreign;

import java.util.ArrayList;
import java.util.List;
import java.util.SortedMap;
import java.util.TreeMap;
import polymetron.elaborate.Field;
import polymetron.elaborate.Register;
import polymetron.library.HardwareAccess;
import polymetron.library.OnWrite;

/**
 * 32 bits of a block's registers: all that one access reaches.
 *
 * @param names registers that lie in it, as software calls them
 * @param places fields by their bits in the word
 * @param compared bits of which the description alone says what they read: those that the block neither gives nor changes
 * @param pulses bits that do something when a one is written, and keep nothing
 * @param isWritten whether software writes any of them
 * @param other offset of the other half of a register that is read and written whole; its own for all others
 */
record RegisterWord(
        int offset,
        List<String> names,
        List<Place> places,
        int compared,
        int pulses,
        boolean isWritten,
        int other) {
    /** A field, or a part of it. */
    record Place(String name, int bits, boolean isCompared) {}

    /** All words of some registers, by offset. */
    static List<RegisterWord> of(List<Register> registers) {
        SortedMap<Integer, RegisterWord> words = new TreeMap<>();
        for (Register register : registers) {
            for (int index = 0; index < register.count(); index++) {
                long offset = register.offset(index);
                int length = Math.max(1, register.width() / Integer.SIZE);
                for (int part = 0; part < length; part++) {
                    RegisterWord word = word(register, index, offset, part);
                    words.merge(word.offset(), word, RegisterWord::and);
                }
            }
        }
        return List.copyOf(words.values());
    }

    private static RegisterWord word(Register register, int index, long offset, int part) {
        int shift = (int) (offset & 3) * Byte.SIZE;
        // One of several at an address is there only at times.
        boolean isAlways = register.type().selectedBy() == null;
        int compared = isAlways ? own(register) << shift : 0;
        int pulses = 0;
        boolean isWritten = false;
        List<Place> places = new ArrayList<>();
        for (Field field : register.fields()) {
            int bits = (int) (field.mask() >>> part * Integer.SIZE) << shift;
            if (bits == 0) {
                continue;
            }
            boolean isDescribed =
                    field.type().hardware() == HardwareAccess.NONE
                            && field.type().software().reads()
                            && field.type().onWrite() != OnWrite.HAND_OVER;
            places.add(new Place(register.name() + "." + field.name(), bits, isDescribed));
            if (!isDescribed) {
                compared &= ~bits;
            }
            if (isAlways && field.type().software().writes()) {
                isWritten = true;
                if (!field.type().onWrite().stores()) {
                    pulses |= bits;
                }
            }
        }
        int first = (int) (offset & ~3L);
        int at = first + part * Integer.BYTES;
        int half = first + (1 - part) * Integer.BYTES;
        return new RegisterWord(
                at,
                List.of(register.name(index)),
                List.copyOf(places),
                compared,
                pulses,
                isWritten,
                register.type().isWhole() ? half : at);
    }

    private static int own(Register register) {
        return register.width() >= Integer.SIZE ? -1 : (1 << register.width()) - 1;
    }

    /** With what else lies in the same word. */
    private RegisterWord and(RegisterWord other) {
        List<String> both = new ArrayList<>(names);
        both.addAll(other.names);
        List<Place> all = new ArrayList<>(places);
        all.addAll(other.places);
        return new RegisterWord(
                offset,
                List.copyOf(both),
                List.copyOf(all),
                compared | other.compared,
                pulses | other.pulses,
                isWritten || other.isWritten,
                this.other);
    }

    /** Whether what is written to it counts only when the word behind it is written. */
    boolean isLowerHalf() {
        return other > offset;
    }

    /** Whether software reads it as it was when the word before it was read. */
    boolean isUpperHalf() {
        return other < offset;
    }

    /** The registers, for a person. */
    String name() {
        return String.join(" and ", names);
    }

    /** The fields that some bits belong to, for a person; bits that no field has are named by their numbers. */
    String fields(int bits) {
        List<String> named = new ArrayList<>();
        int left = bits;
        for (Place place : places) {
            if ((place.bits() & bits) != 0) {
                named.add(place.name().substring(place.name().indexOf('.') + 1));
                left &= ~place.bits();
            }
        }
        if (left != 0) {
            named.add("bits that are not described (0x%08X)".formatted(left));
        }
        return String.join(", ", named);
    }
}
