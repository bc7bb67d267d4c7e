package polymetron.elaborate;

import java.util.List;
import polymetron.library.Access;
import polymetron.library.Field;
import polymetron.library.RegisterType;

/**
 * A register, or a row of equal ones, with offset and reset value worked out.
 *
 * @param offset bytes from the base of the range
 * @param width bits: 8, 16, 32 or 64
 * @param count registers in the row; 1 for a single one
 */
public record Register(RegisterType type, long offset, int width, long reset, int count) {
    public String name() {
        return type.name();
    }

    public Access access() {
        return type.access();
    }

    public List<Field> fields() {
        return type.fields();
    }

    public boolean isRow() {
        return count > 1;
    }

    public int stride() {
        return type.stride() == null ? width / 8 : type.stride();
    }

    /** Number of the row's first register. */
    public int first() {
        return type.first() == null ? 0 : type.first();
    }

    /** Name of one register of the row, or just the name. */
    public String name(int index) {
        return isRow() ? name() + "[" + (first() + index) + "]" : name();
    }

    /** Index of the register in the row that an offset within the range falls into, or -1. */
    public int indexAt(long byteOffset) {
        long within = byteOffset - offset;
        if (within < 0 || within >= (long) (count - 1) * stride() + width / 8) {
            return -1;
        }
        return within % stride() < width / 8 ? (int) (within / stride()) : -1;
    }

    /** Byte offset of one of a row. */
    public long offset(int index) {
        return offset + (long) index * stride();
    }
}
