package polymetron.elaborate;

import polymetron.library.MemoryType;

/**
 * A memory inside a block, sized by the block's parameters.
 *
 * @param depth number of words
 * @param width bits of a word
 * @param ports accesses at once: 1 or 2
 * @param byteEnables whether single bytes of a word can be written
 */
public record SizedMemory(MemoryType type, long depth, int width, int ports, boolean byteEnables) {
    public String name() {
        return type.name();
    }

    public long bits() {
        return depth * width;
    }

    /** Whether the bitstream fills it. */
    public boolean hasContents() {
        return Boolean.TRUE.equals(type.contents());
    }
}
