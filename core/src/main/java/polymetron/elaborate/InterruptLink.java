package polymetron.elaborate;

import polymetron.platform.InterruptWire;

/**
 * An interrupt source and where it goes.
 *
 * @param wire null when it goes nowhere
 * @param sink the port that the wire leads to; null when there is none
 */
public record InterruptLink(
        ElaboratedBlock block,
        SizedInterrupt source,
        InterruptWire wire,
        ElaboratedBlock sinkBlock,
        SizedInterrupt sink) {
    public InterfaceRef ref() {
        return new InterfaceRef(block.name(), source.name());
    }

    public boolean isConnected() {
        return sink != null;
    }
}
