package polymetron.elaborate;

import java.util.List;
import java.util.Map;
import polymetron.expression.Expression;
import polymetron.expression.Value;
import polymetron.library.Access;
import polymetron.library.RegisterType;

/**
 * A register, or a row of equal ones, with its numbers worked out.
 *
 * @param offset bytes from the base of the range
 * @param width bits: 8, 16, 32 or 64
 * @param count registers in the row; 1 for a single one
 * @param parameters values of the block's parameters
 */
public record Register(
        RegisterType type,
        long offset,
        int width,
        int count,
        List<Field> fields,
        Map<String, Value> parameters) {
    /** Name by which a reset value refers to the clock of its block, in hertz. */
    public static final String CLOCK = "CLOCK";

    public String name() {
        return type.name();
    }

    public Access access() {
        return type.access();
    }

    /** Whether the reset value follows from the clock of the block. */
    public boolean resetFollowsClock() {
        return type.reset() != null && type.reset().names().contains(CLOCK);
    }

    /**
     * Value after reset.
     *
     * @param clockHz clock of the block in hertz; 0 when it has none
     */
    public long reset(long clockHz) {
        Expression reset = type.reset();
        if (reset == null) {
            return 0;
        }
        Value clock = new Value.Real(clockHz);
        return reset.evaluate(name -> name.equals(CLOCK) ? clock : parameters.get(name))
                .asNumber()
                .longValue();
    }

    /** The bits that software can change by writing. */
    public long writableMask() {
        long mask = 0;
        for (Field field : fields) {
            mask |= field.access().writable() ? field.mask() : 0;
        }
        return mask;
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
