package polymetron.elaborate;

import polymetron.library.Access;

/**
 * Some bits of a register, with place and width worked out.
 *
 * @param lowBit number of the lowest bit
 * @param bits number of bits
 */
public record Field(String name, int lowBit, int bits, Access access, String explains) {
    /** The bits as a register table writes them: {@code 7:4}, or {@code 3} for a single one. */
    public String bitRange() {
        return bits == 1 ? Integer.toString(lowBit) : (lowBit + bits - 1) + ":" + lowBit;
    }

    /** The field's bits within the register. */
    public long mask() {
        return (bits >= 64 ? -1L : (1L << bits) - 1) << lowBit;
    }
}
