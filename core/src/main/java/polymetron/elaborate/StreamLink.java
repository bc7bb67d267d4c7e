package polymetron.elaborate;

import polymetron.platform.StreamWire;

/**
 * A stream source and where it goes.
 *
 * @param wire null as long as it is open
 * @param sinkBlock null when it is open or leads nowhere
 * @param sink null when it is open or leads nowhere
 * @param carries what its words carry, from where they were made
 */
public record StreamLink(
        ElaboratedBlock block,
        SizedStream source,
        StreamWire wire,
        ElaboratedBlock sinkBlock,
        SizedStream sink,
        StreamTraits carries) {
    public InterfaceRef ref() {
        return new InterfaceRef(block.name(), source.name());
    }

    /** The sink; null when there is none. */
    public InterfaceRef sinkRef() {
        return sink == null ? null : new InterfaceRef(sinkBlock.name(), sink.name());
    }

    public boolean isOpen() {
        return wire == null;
    }
}
