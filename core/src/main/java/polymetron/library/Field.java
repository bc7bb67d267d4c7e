package polymetron.library;

/**
 * Some bits of a register.
 *
 * @param lowBit number of the lowest bit
 * @param width number of bits; null for 1
 * @param access null for that of the register
 */
public record Field(String name, int lowBit, Integer width, Access access, String explains) {
    public int bits() {
        return width == null ? 1 : width;
    }

    /** The bits as a register table writes them: {@code 7:4}, or {@code 3} for a single one. */
    public String bitRange() {
        return bits() == 1
                ? Integer.toString(lowBit)
                : "%s:%s".formatted(lowBit + bits() - 1, lowBit);
    }

    /** The field's bits within the register. */
    public long mask() {
        return (bits() >= 64 ? -1L : (1L << bits()) - 1) << lowBit;
    }
}
