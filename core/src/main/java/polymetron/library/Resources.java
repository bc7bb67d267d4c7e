package polymetron.library;

import polymetron.expression.Expression;

/** Estimated use of a device by one block; each is a formula, null for none. */
public record Resources(
        Expression lookupTables, Expression flipFlops, Expression multipliers, Expression plls) {}
