package polymetron.bench.live;

/**
 * A register of a block and what is in it now.
 *
 * @param isThere whether it is the register at its address now
 * @param value null for a register that cannot be read, or is not there now
 */
public record RegisterValue(
        String block,
        String register,
        int index,
        long address,
        int width,
        boolean isThere,
        Long value) {}
