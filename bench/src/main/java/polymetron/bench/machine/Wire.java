package polymetron.bench.machine;

import polymetron.bench.block.BlockModel;

/**
 * An interrupt wire between two blocks.
 *
 * @param sink null when the wire leads to the hart
 * @param input input of the sink, or number of the hart's line
 */
record Wire(BlockModel source, String name, BlockModel sink, int input) {}
