package polymetron.finding;

import java.util.List;
import java.util.function.Consumer;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.library.ClockInput;
import polymetron.quantity.Frequency;

/** A clock is faster or slower than the block allows. */
final class ClockLimitRule implements Rule {
    @Override
    public String id() {
        return "clock-outside-limits";
    }

    @Override
    public Grade grade() {
        return Grade.ERROR;
    }

    @Override
    public String title() {
        return "Clock outside the limits of the block";
    }

    @Override
    public String explanation() {
        return "Too fast, and the logic misses its timing; too slow, and the block cannot keep its"
                + " promises.";
    }

    @Override
    public void check(ElaboratedPlatform platform, Consumer<Finding> report) {
        for (ElaboratedBlock block : platform.blocks()) {
            for (ClockInput clock : block.type().clocks()) {
                long hertz = platform.frequencyHz(block, clock.name());
                boolean low = clock.minimumHz() != null && hertz < clock.minimumHz();
                boolean high = clock.maximumHz() != null && hertz > clock.maximumHz();
                if (hertz != 0 && (low || high)) {
                    report.accept(
                            finding(
                                    block.name() + "." + clock.name(),
                                    "%s runs at %s; %s"
                                            .formatted(
                                                    block.name(),
                                                    Frequency.format(hertz),
                                                    low
                                                            ? "it needs at least "
                                                                    + Frequency.format(
                                                                            clock.minimumHz())
                                                            : "it allows at most "
                                                                    + Frequency.format(
                                                                            clock.maximumHz())),
                                    fixes(platform, block, clock)));
                }
            }
        }
    }

    /** Domains that are within the limits. */
    private static List<Fix> fixes(
            ElaboratedPlatform platform, ElaboratedBlock block, ClockInput clock) {
        return platform.domains().stream()
                .filter(domain -> clock.allows(domain.frequencyHz()))
                .flatMap(domain -> DomainFixes.into(platform, block, clock.name(), domain).stream())
                .toList();
    }
}
