package polymetron.clock;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import polymetron.elaborate.Domain;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.ElaboratedPlatform;

/**
 * When a clock domain leaves its reset. A reset of the board comes first; one that a block makes comes after the domains
 * that the block itself waits for.
 *
 * @param order turn, from 1; domains of the same turn do not wait for each other
 * @param activeLow whether the board's reset is active low; null for one that a block makes
 */
public record ResetStep(int order, Domain domain, Boolean activeLow) {

    /** Every domain that is reset, in the order of release and then by name. */
    public static List<ResetStep> of(ElaboratedPlatform platform) {
        List<ResetStep> steps = new ArrayList<>();
        for (Domain domain : platform.domains()) {
            if (domain.hasReset()) {
                steps.add(
                        new ResetStep(
                                turn(platform, domain, new HashSet<>()),
                                domain,
                                domain.reset() == null ? null : domain.reset().activeLow()));
            }
        }
        steps.sort(
                Comparator.comparingInt((ResetStep step) -> step.order())
                        .thenComparing(step -> step.domain().name()));
        return steps;
    }

    private static int turn(ElaboratedPlatform platform, Domain domain, Set<String> passed) {
        String made = domain.domain().reset();
        // A reset that waits for itself never comes; it is counted once.
        if (domain.reset() != null || made == null || !passed.add(domain.name())) {
            return 1;
        }
        ElaboratedBlock maker = platform.block(made.substring(0, made.indexOf('.'))).orElse(null);
        int before = 0;
        if (maker != null) {
            for (String name : Set.copyOf(maker.block().domains().values())) {
                Domain waits = platform.domainIndex().get(name);
                if (waits != null && waits.hasReset() && !waits.name().equals(domain.name())) {
                    before = Math.max(before, turn(platform, waits, passed));
                }
            }
        }
        return before + 1;
    }
}
