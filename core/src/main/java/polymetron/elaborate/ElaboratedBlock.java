package polymetron.elaborate;

import polymetron.library.BlockType;
import polymetron.library.Kind;
import polymetron.platform.Block;

/** A block of the platform together with its worked-out type. */
public record ElaboratedBlock(Block block, BlockShape shape) {
    public String name() {
        return block.name();
    }

    public BlockType type() {
        return shape.type();
    }

    public Kind kind() {
        return shape.type().kind();
    }
}
