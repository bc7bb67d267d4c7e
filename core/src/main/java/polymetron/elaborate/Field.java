package polymetron.elaborate;

import java.math.BigInteger;
import java.util.Map;
import polymetron.expression.Expression;
import polymetron.expression.Value;
import polymetron.library.Access;
import polymetron.library.FieldType;

/**
 * Some bits of a register, with place and width worked out.
 *
 * @param lowBit number of the lowest bit
 * @param bits number of bits
 * @param parameters values of the block's parameters
 */
public record Field(FieldType type, int lowBit, int bits, Map<String, Value> parameters) {
    public String name() {
        return type.name();
    }

    public Access access() {
        return type.access();
    }

    public String explains() {
        return type.explains();
    }

    /** The bits as a register table writes them: {@code 7:4}, or {@code 3} for a single one. */
    public String bitRange() {
        return bits == 1 ? Integer.toString(lowBit) : (lowBit + bits - 1) + ":" + lowBit;
    }

    /** The field's bits within the register. */
    public long mask() {
        return ones() << lowBit;
    }

    /** The largest value of the field. */
    public long ones() {
        return bits >= 64 ? -1L : (1L << bits) - 1;
    }

    /**
     * Value after reset.
     *
     * @param clockHz clock of the block in hertz; 0 when it has none
     * @param index place in a row of registers, from 0
     */
    public long reset(long clockHz, int index) {
        Expression reset = type.reset();
        if (reset == null) {
            return 0;
        }
        Value clock = new Value.Real(clockHz);
        Value place = place(index);
        long value =
                reset.evaluate(
                                name ->
                                        switch (name) {
                                            case Register.CLOCK -> clock;
                                            case FieldType.INDEX -> place;
                                            default -> parameters.get(name);
                                        })
                        .asNumber()
                        .longValue();
        return value & ones();
    }

    /**
     * The bits that there are in one register of a row, from bit 0 of the field on.
     *
     * @param index place in the row, from 0
     */
    public long implemented(int index) {
        Expression implemented = type.implemented();
        if (implemented == null) {
            return ones();
        }
        Value place = place(index);
        return ones()
                & implemented
                        .evaluate(
                                name -> name.equals(FieldType.INDEX) ? place : parameters.get(name))
                        .asNumber()
                        .longValue();
    }

    private static Value place(int index) {
        return Value.Bits.of(BigInteger.valueOf(index), Integer.SIZE, true);
    }
}
