package polymetron.finding;

import java.util.List;
import java.util.function.Consumer;
import polymetron.cost.AccessCost;
import polymetron.elaborate.AddressSpace;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.InterfaceRef;
import polymetron.elaborate.TargetRange;
import polymetron.software.Hart;
import polymetron.software.Harts;

/** A processor without a cache starts in memory that takes long to read. */
final class SlowFetchRule extends PlainRule {
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
        for (Hart hart : Harts.of(platform).all()) {
            AddressSpace space =
                    platform.space(new InterfaceRef(hart.block().name(), hart.role().fetch()))
                            .orElse(null);
            if (hart.index() > 0
                    || space == null
                    || !space.initiator().fetches()
                    || space.initiator().form().burst() > 1) {
                continue;
            }
            TargetRange start = space.at(hart.resetVector()).orElse(null);
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
