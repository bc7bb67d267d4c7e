package polymetron.elaborate;

import polymetron.platform.Attachment;

/** An initiator on a bus. */
public record InitiatorPort(ElaboratedBlock block, SizedInterface form) {
    public InterfaceRef ref() {
        return new InterfaceRef(block.name(), form.name());
    }

    /** What a person calls it, such as {@code cpu · data side}. */
    public String label() {
        return form.type().title() == null
                ? block.name()
                : block.name() + " · " + form.type().title();
    }

    /** Where it is on a bus; null when it is on none. */
    public Attachment attachment() {
        return block.block().attachments().get(form.name());
    }

    /** Whether it only passes on what comes to a bridge. */
    public boolean isBehindBridge() {
        Bridge bridge = block.shape().bridge();
        return bridge != null && bridge.passesOn(form);
    }

    /** Whether it only fetches instructions, and so only needs to reach memory that holds them. */
    public boolean fetches() {
        return form.onlyFetches();
    }

    /** Whether there are targets inside the block that it sees without a bus. */
    public boolean seesInside() {
        return block.shape().busInterfaces().stream()
                .anyMatch(target -> form.name().equals(target.type().seenBy()));
    }
}
