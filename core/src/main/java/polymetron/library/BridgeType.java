package polymetron.library;

import polymetron.expression.Expression;

/**
 * What makes a block type a bridge: accesses to the range of one of its targets go out through one of its
 * initiators.
 *
 * @param upstream target interface whose range is the window
 * @param downstream initiator interface that the accesses go out through
 * @param origin address on the downstream bus that the window begins at; null for 0
 */
public record BridgeType(String upstream, String downstream, Expression origin) {}
