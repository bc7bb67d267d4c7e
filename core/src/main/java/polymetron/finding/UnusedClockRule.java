package polymetron.finding;

import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.function.Consumer;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.library.ClockOutput;

/** A block makes a clock that is the source of no domain. */
final class UnusedClockRule extends PlainRule {
    UnusedClockRule() {
        super(
                "clock-output-unused",
                Grade.NOTE,
                "Unused clock output",
                "It takes an output of a PLL for nothing.");
    }

    @Override
    public void check(ElaboratedPlatform platform, Consumer<Finding> report) {
        Set<String> taken = new HashSet<>();
        platform.domains().forEach(domain -> taken.add(domain.domain().clock()));
        for (ElaboratedBlock block : platform.blocks()) {
            for (ClockOutput output : block.shape().clockOutputs()) {
                String ref = block.name() + "." + output.name();
                if (!taken.contains(ref)) {
                    report.accept(
                            finding(ref, "no clock domain runs on %s".formatted(ref), List.of()));
                }
            }
        }
    }
}
