package polymetron.bench.block;

import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import polymetron.elaborate.Field;
import polymetron.elaborate.Register;
import polymetron.library.Access;

/**
 * A block of which the bench only knows the registers: they have their values after reset and keep what software
 * writes, as far as the access of each field allows, and nothing happens by itself.
 */
public final class RegisterFileModel extends BlockModel {
    /**
     * A word of the block.
     *
     * @param readable whether it is read, or reads as 0
     * @param stores bits that keep what is written
     * @param clears bits that a written 1 clears
     */
    private record Word(int reset, boolean readable, int stores, int clears) {
        Word with(Word other) {
            return new Word(
                    reset | other.reset,
                    readable || other.readable,
                    stores | other.stores,
                    clears | other.clears);
        }
    }

    private final Map<Integer, Word> words = new HashMap<>();
    private final Map<Integer, Integer> values = new HashMap<>();
    private final Set<String> raised = new HashSet<>();

    /**
     * @param clockHz clock of the block in hertz, from which some values after reset follow
     */
    public RegisterFileModel(List<Register> registers, long clockHz) {
        for (Register register : registers) {
            long stores = mask(register, Access.READ_WRITE) | mask(register, Access.WRITE_ONLY);
            long clears = mask(register, Access.WRITE_ONE_TO_CLEAR);
            long reset = register.reset(clockHz);
            boolean readable = register.access().readable();
            for (int index = 0; index < register.count(); index++) {
                int at = (int) register.offset(index);
                for (int part = 0; part < Math.max(1, register.width() / 32); part++) {
                    Word word =
                            new Word(
                                    shifted(reset, part, at),
                                    readable,
                                    shifted(stores, part, at),
                                    shifted(clears, part, at));
                    words.merge((at & ~3) + 4 * part, word, Word::with);
                }
            }
        }
        clear();
    }

    /** The part of a register's bits that is in a word. */
    private static int shifted(long bits, int part, int offset) {
        return (int) (bits >>> 32 * part) << 8 * (offset & 3);
    }

    private static long mask(Register register, Access access) {
        long mask = 0;
        for (Field field : register.fields()) {
            mask |= field.access() == access ? field.mask() : 0;
        }
        return mask;
    }

    @Override
    protected void clear() {
        values.clear();
        raised.clear();
        words.forEach((offset, word) -> values.put(offset, word.reset()));
    }

    @Override
    public int read(int offset) {
        Word word = words.get(offset);
        return word == null || !word.readable() ? 0 : values.get(offset);
    }

    @Override
    public void write(int offset, int value, int mask) {
        Word word = words.get(offset);
        if (word != null) {
            int old = values.get(offset);
            values.put(
                    offset,
                    merge(old, value, mask & word.stores()) & ~(value & mask & word.clears()));
        }
    }

    /** Sets bits of a word, as the hardware would when something happens. */
    public void raise(int offset, int bits) {
        values.computeIfPresent(offset, (at, old) -> old | bits);
    }

    /** Sets the level of one of the block's interrupt sources. */
    public void drive(String source, boolean high) {
        if (high) {
            raised.add(source);
        } else {
            raised.remove(source);
        }
    }

    @Override
    public boolean interrupt(String source) {
        return raised.contains(source);
    }
}
