package polymetron.library;

import polymetron.expression.Expression;

/**
 * A memory inside a block.
 *
 * @param depth number of words
 * @param width bits of a word
 * @param ports accesses at once: 1, or 2 from both sides; null for 1
 * @param byteEnables whether single bytes of a word can be written; null for no
 * @param contents whether the bitstream fills it; null for no
 * @param when whether it is there; null for always
 */
public record MemoryType(
        String name,
        Expression depth,
        Expression width,
        Expression ports,
        Expression byteEnables,
        Boolean contents,
        Expression when) {}
