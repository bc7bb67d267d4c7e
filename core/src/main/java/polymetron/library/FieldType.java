package polymetron.library;

import polymetron.expression.Expression;

/**
 * Some bits of a register, and everything that software and hardware do with them. Expressions of place, width and reset
 * are of the block's parameters. The properties are those of SystemRDL 2.0; {@code docs/registers.md} says which.
 *
 * @param lowBit number of the lowest bit
 * @param width number of bits; null for 1
 * @param software what software may do
 * @param onWrite what a write of software does; null for storing what is written
 * @param onRead what a read of software does besides; null for nothing
 * @param hardware what the block itself does; null for nothing
 * @param reset value after reset; null for 0
 * @param implemented mask of the bits that there are, of the place of the register in its row ({@link #INDEX}) as well; the
 *     others read as 0; null for all
 * @param lockedBy while this expression of fields, each as {@code REGISTER.FIELD}, is true, writes change nothing; null for
 *     never
 * @param interrupt the interrupt that the field raises while it is not 0; null for none
 * @param when whether the field is there; null for always
 */
public record FieldType(
        String name,
        Expression lowBit,
        Expression width,
        SoftwareAccess software,
        OnWrite onWrite,
        OnRead onRead,
        HardwareAccess hardware,
        Expression reset,
        Expression implemented,
        Expression lockedBy,
        Interrupt interrupt,
        String explains,
        Expression when) {
    /** Name of a register's place in its row, from 0, in {@link #implemented}. */
    public static final String INDEX = "INDEX";

    /**
     * An interrupt that a field raises.
     *
     * @param source interrupt source of the block
     * @param enable field that lets it through, as {@code REGISTER.FIELD}; null for always
     */
    public record Interrupt(String source, String enable) {}

    public FieldType {
        onWrite = onWrite == null ? OnWrite.STORE : onWrite;
        onRead = onRead == null ? OnRead.NONE : onRead;
        hardware = hardware == null ? HardwareAccess.NONE : hardware;
    }

    /** What software may do, as a register table says it. */
    public Access access() {
        return Access.of(software, onWrite);
    }
}
