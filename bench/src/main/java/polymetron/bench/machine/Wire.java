package polymetron.bench.machine;

import java.util.List;
import java.util.function.BooleanSupplier;
import polymetron.bench.block.InterruptControllerModel;

/**
 * An interrupt input with everything that drives it: it is high when one of its sources is.
 *
 * @param sink null when it is a line of the hart
 * @param input input of the sink, or number of the hart's line
 */
record Wire(InterruptControllerModel sink, int input, List<BooleanSupplier> sources) {
    boolean isHigh() {
        for (BooleanSupplier source : sources) {
            if (source.getAsBoolean()) {
                return true;
            }
        }
        return false;
    }
}
