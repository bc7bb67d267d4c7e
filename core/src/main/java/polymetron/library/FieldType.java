package polymetron.library;

import polymetron.expression.Expression;

/**
 * Some bits of a register. Expressions are of the block's parameters.
 *
 * @param lowBit number of the lowest bit
 * @param width number of bits; null for 1
 * @param access null for that of the register
 * @param when whether the field is there; null for always
 */
public record FieldType(
        String name,
        Expression lowBit,
        Expression width,
        Access access,
        String explains,
        Expression when) {}
