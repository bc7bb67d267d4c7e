package polymetron.finding;

import java.util.List;
import java.util.function.Consumer;
import polymetron.cost.AccessCost;
import polymetron.elaborate.AddressSpace;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.TargetRange;

/** A processor without a cache starts in memory that takes long to read. */
final class SlowFetchRule extends PlainRule {
    private static final String VECTOR = "RESET_VECTOR";
    private static final long MOST_CYCLES = 20;

    SlowFetchRule() {
        super(
                "fetch-slow",
                Grade.NOTE,
                "Program in slow memory",
                "Every instruction is waited for, because the processor fetches them one by one. A"
                        + " cache, or a copy in faster memory, helps.");
    }

    @Override
    public void check(ElaboratedPlatform platform, Consumer<Finding> report) {
        for (AddressSpace space : platform.spaces()) {
            var processor = space.initiator().block();
            if (!space.initiator().fetches()
                    || space.initiator().form().burst() > 1
                    || processor.type().parameter(VECTOR).isEmpty()) {
                continue;
            }
            TargetRange start = space.at(processor.shape().number(VECTOR)).orElse(null);
            long cycles = start == null ? 0 : AccessCost.of(platform, space, start).cycles();
            if (cycles > MOST_CYCLES) {
                report.accept(
                        finding(
                                space.initiator().ref(),
                                "%s waits %s cycles for each instruction from %s"
                                        .formatted(
                                                space.initiator().label(), cycles, start.label()),
                                List.of()));
            }
        }
    }
}
