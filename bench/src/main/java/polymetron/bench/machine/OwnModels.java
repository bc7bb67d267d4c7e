package polymetron.bench.machine;

import java.util.Optional;
import polymetron.bench.block.BlockModel;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.SizedInterface;

/** Models of blocks that people have written themselves. */
@FunctionalInterface
public interface OwnModels {
    /** Where the description of a block's registers is its model. */
    OwnModels NONE = (platform, block, form) -> Optional.empty();

    /**
     * A new model of what lies behind a target; empty where the description of its registers has to do.
     *
     * @param form the target; null for a block without a bus interface
     * @throws BenchException when it cannot be made
     */
    Optional<BlockModel> of(
            ElaboratedPlatform platform, ElaboratedBlock block, SizedInterface form);
}
