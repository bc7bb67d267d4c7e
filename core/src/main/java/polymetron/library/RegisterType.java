package polymetron.library;

import java.util.List;
import polymetron.expression.Expression;

/**
 * A register, or a row of equal ones.
 *
 * @param offset bytes from the base of the range
 * @param width number of bits: 8, 16, 32 or 64; null for 32
 * @param whole whether one of 64 bits is read and written whole, though an access has 32: {@code docs/registers.md}; null for no
 * @param count number of registers in a row; null for a single one
 * @param stride bytes from one register of the row to the next
 * @param first number of the first register of a row; null for 0
 * @param selectedBy expression of fields, each as {@code REGISTER.FIELD}, while which the register is the one at its
 *     address; null for always
 * @param when whether the register is there; null for always
 * @param target bus interface behind which it is; null for the first that has registers
 */
public record RegisterType(
        String name,
        Expression offset,
        Integer width,
        Boolean whole,
        Expression count,
        Integer stride,
        Integer first,
        Expression selectedBy,
        List<FieldType> fields,
        String explains,
        Expression when,
        String target) {
    private static final String ORDER =
            "Whole: the lower word is read first, and the upper one is of the same cycle; the lower"
                    + " word is written first, and counts with the upper one.";

    public RegisterType {
        fields = Lists.orEmpty(fields);
    }

    /** Whether both words of it are read and written at one time. */
    public boolean isWhole() {
        return Boolean.TRUE.equals(whole);
    }

    /** What it is for, and how its two words belong together, for a person. */
    public String meaning() {
        return isWhole() ? "%s %s".formatted(explains, ORDER).strip() : explains;
    }

    /** What software may do with the register as a whole. */
    public Access access() {
        return Access.of(fields);
    }
}
