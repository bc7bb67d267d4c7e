package polymetron.finding;

import java.util.List;
import java.util.function.Consumer;
import polymetron.clock.Crossing;
import polymetron.clock.Crossings;
import polymetron.elaborate.ElaboratedPlatform;

/** An interrupt that signals by an edge goes into a slower clock domain. */
final class LostEdgeRule extends PlainRule {
    LostEdgeRule() {
        super(
                "interrupt-edge-lost",
                Grade.WARNING,
                "Interrupt edge that can be lost",
                "The edge can be over before the slower clock of the controller sees it. Clock both"
                        + " by the same domain, or take a source that holds a level.");
    }

    @Override
    public void check(ElaboratedPlatform platform, Consumer<Finding> report) {
        for (Crossing crossing : Crossings.of(platform)) {
            if (crossing.sort() == Crossing.Sort.INTERRUPT && !crossing.isSafe()) {
                report.accept(
                        finding(
                                crossing.subject(),
                                "%s, by an edge, from %s into the slower %s"
                                        .formatted(crossing.what(), crossing.from(), crossing.to()),
                                List.of()));
            }
        }
    }
}
