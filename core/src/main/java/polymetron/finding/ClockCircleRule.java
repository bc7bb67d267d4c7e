package polymetron.finding;

import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.function.Consumer;
import polymetron.elaborate.Domain;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.ElaboratedPlatform;

/** The clock of a domain leads back to the domain. */
final class ClockCircleRule extends PlainRule {
    ClockCircleRule() {
        super(
                "clock-circle",
                Grade.ERROR,
                "Clock that is made from itself",
                "The block that makes it waits for the clock that it makes, so it never starts.");
    }

    @Override
    public void check(ElaboratedPlatform platform, Consumer<Finding> report) {
        for (Domain domain : platform.domains()) {
            Set<String> passed = new HashSet<>();
            Domain at = domain;
            while (at != null && passed.add(at.name())) {
                at = source(platform, at);
            }
            if (at != null && at.name().equals(domain.name())) {
                report.accept(
                        finding(
                                domain.name(),
                                "%s is made by %s, which %s itself drives"
                                        .formatted(
                                                domain.name(),
                                                domain.domain().clock(),
                                                domain.name()),
                                fixes(platform, domain)));
            }
        }
    }

    /** Another clock for what makes this one. */
    private static List<Fix> fixes(ElaboratedPlatform platform, Domain domain) {
        String clock = domain.domain().clock();
        ElaboratedBlock maker = platform.blockIndex().get(clock.substring(0, clock.indexOf('.')));
        return maker.shape().clockOutputs().stream()
                .filter(output -> clock.endsWith("." + output.name()) && output.from() != null)
                .flatMap(output -> DomainFixes.of(platform, maker, output.from()).stream())
                .toList();
    }

    /** The domain that the block which makes a domain's clock runs on; null when the board makes it. */
    private static Domain source(ElaboratedPlatform platform, Domain domain) {
        String clock = domain.domain().clock();
        int dot = clock == null ? -1 : clock.indexOf('.');
        if (domain.clock() != null || dot < 0) {
            return null;
        }
        ElaboratedBlock maker = platform.blockIndex().get(clock.substring(0, dot));
        if (maker == null) {
            return null;
        }
        return maker.shape().clockOutputs().stream()
                .filter(output -> output.name().equals(clock.substring(dot + 1)))
                .filter(output -> output.from() != null)
                .findFirst()
                .map(output -> maker.block().domains().get(output.from()))
                .map(name -> platform.domainIndex().get(name))
                .orElse(null);
    }
}
