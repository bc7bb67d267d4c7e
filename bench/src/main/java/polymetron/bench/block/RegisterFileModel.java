package polymetron.bench.block;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import polymetron.elaborate.Register;
import polymetron.library.Access;

/**
 * A block of which the bench only knows the registers: they have their values after reset and keep what software
 * writes, as far as their access allows, and nothing else happens.
 */
public final class RegisterFileModel extends BlockModel {
    private record Word(Register register, int reset) {}

    private final Map<Integer, Word> words = new HashMap<>();
    private final Map<Integer, Integer> values = new HashMap<>();

    public RegisterFileModel(List<Register> registers) {
        for (Register register : registers) {
            for (int index = 0; index < register.count(); index++) {
                long at = register.offset() + (long) index * register.stride();
                for (int part = 0; part < Math.max(1, register.width() / 32); part++) {
                    words.putIfAbsent(
                            (int) at + 4 * part,
                            new Word(register, (int) (register.reset() >>> 32 * part)));
                }
            }
        }
        clear();
    }

    @Override
    protected void clear() {
        values.clear();
        words.forEach((offset, word) -> values.put(offset, word.reset()));
    }

    @Override
    public int read(int offset) {
        Word word = words.get(offset);
        return word == null || !word.register().access().readable() ? 0 : values.get(offset);
    }

    @Override
    public void write(int offset, int value, int mask) {
        Word word = words.get(offset);
        if (word == null || !word.register().access().writable()) {
            return;
        }
        int old = values.get(offset);
        boolean clears = word.register().access() == Access.WRITE_ONE_TO_CLEAR;
        values.put(offset, clears ? old & ~(value & mask) : merge(old, value, mask));
    }
}
