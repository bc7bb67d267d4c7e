package polymetron.output.image;

import polymetron.elaborate.TargetRange;

/**
 * Bytes of a program in the memory that keeps them.
 *
 * @param memory the memory, as it is seen where the bytes are loaded
 * @param offset of the first byte from the beginning of the memory
 */
public record LoadedPiece(TargetRange memory, long offset, byte[] bytes) {
    /** Offset of the first byte behind them. */
    public long end() {
        return offset + bytes.length;
    }
}
