package polymetron.finding;

import java.util.List;
import java.util.function.Consumer;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.fit.DeviceFit;
import polymetron.fit.MemoryFit;
import polymetron.fit.MemoryUse;

/** A memory fills less than half of the blocks that it takes. */
final class WastefulMemoryRule extends PlainRule {
    private static final int FEW = 2;

    WastefulMemoryRule() {
        super(
                "memory-wasteful",
                Grade.NOTE,
                "Memory that wastes memory blocks",
                "Blocks are taken whole. A size nearer to a multiple of their shapes holds as much"
                        + " with fewer.");
    }

    @Override
    public void check(ElaboratedPlatform platform, Consumer<Finding> report) {
        DeviceFit.of(platform)
                .map(DeviceFit::memory)
                .filter(fit -> fit.sort() != null)
                .ifPresent(fit -> check(fit, report));
    }

    private void check(MemoryFit fit, Consumer<Finding> report) {
        long unitBits = fit.sort().halves() ? fit.sort().bits() / 2 : fit.sort().bits();
        for (MemoryUse use : fit.uses()) {
            if (use.units() >= FEW && use.memory().bits() * 2 < use.units() * unitBits) {
                report.accept(
                        finding(
                                use.block(),
                                "%s holds %s bits and takes memory blocks for %s"
                                        .formatted(
                                                use.label(),
                                                use.memory().bits(),
                                                use.units() * unitBits),
                                List.of()));
            }
        }
    }
}
