package polymetron.elaborate;

import polymetron.library.BlockType;
import polymetron.library.Kind;
import polymetron.platform.Block;

/** A block of the platform together with its worked-out type. */
public record ElaboratedBlock(Block block, BlockShape shape) {
    public String name() {
        return block.name();
    }

    /** That of the name, which tells blocks of a platform apart. */
    @Override
    public int hashCode() {
        return block.name().hashCode();
    }

    public BlockType type() {
        return shape.type();
    }

    public Kind kind() {
        return shape.type().kind();
    }

    /**
     * Name of the domain that an interface is in; null when it is not known yet.
     *
     * @param clockInput clock input that the interface belongs to; null for the block's first
     */
    public String domain(String clockInput) {
        if (clockInput != null) {
            return block.domains().get(clockInput);
        }
        return type().clocks().isEmpty()
                ? null
                : block.domains().get(type().clocks().getFirst().name());
    }
}
