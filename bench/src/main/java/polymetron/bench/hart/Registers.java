package polymetron.bench.hart;

/** Registers of something on the bus that is not plain memory. Offsets are bytes from the base of its range. */
public interface Registers {
    /** Reads the 32-bit word at a multiple of 4, with the effects that reading has. */
    int read(int offset);

    /**
     * Writes bytes of the 32-bit word at a multiple of 4.
     *
     * @param mask ones in the bits of the bytes that are written
     */
    void write(int offset, int value, int mask);

    /** Whether there is anything at a word; where there is not, the bus answers with an error. */
    default boolean isThere(int offset) {
        return true;
    }
}
