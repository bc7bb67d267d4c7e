package polymetron.finding;

import java.util.List;
import java.util.function.Consumer;
import polymetron.clock.Crossing;
import polymetron.clock.Crossings;
import polymetron.elaborate.Domain;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.InterfaceRef;

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
                                fixes(platform, crossing)));
            }
        }
    }

    /** The source on the clock of its controller, as far as it has one clock and allows that one. */
    private static List<Fix> fixes(ElaboratedPlatform platform, Crossing crossing) {
        InterfaceRef source = InterfaceRef.parse(crossing.subject());
        ElaboratedBlock block = platform.block(source.block()).orElse(null);
        Domain to = platform.domainIndex().get(crossing.to());
        return block == null || to == null || block.type().clocks().size() != 1
                ? List.of()
                : block.type().clocks().stream()
                        .filter(clock -> clock.allows(to.frequencyHz()))
                        .flatMap(
                                clock ->
                                        DomainFixes.into(platform, block, clock.name(), to)
                                                .stream())
                        .toList();
    }
}
