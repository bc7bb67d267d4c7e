package polymetron.finding;

import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.function.Consumer;
import polymetron.clock.ClockMaker;
import polymetron.elaborate.Domain;
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
                at =
                        ClockMaker.of(platform, at)
                                .flatMap(maker -> maker.source(platform))
                                .orElse(null);
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
        return ClockMaker.of(platform, domain).stream()
                .flatMap(
                        maker ->
                                DomainFixes.of(platform, maker.block(), maker.output().from())
                                        .stream())
                .toList();
    }
}
