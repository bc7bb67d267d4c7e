package polymetron.finding;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.platform.Acceptance;

/** Runs every rule and ranks what they find. */
public final class Checks {
    private static final List<Rule> RULES =
            List.of(
                    new DanglingReferenceRule(),
                    new ParameterRule(),
                    new OverlapRule(),
                    new MisalignedRule(),
                    new OutsideBusRule(),
                    new UnplacedRule(),
                    new UnreachedTargetRule(),
                    new NoMemoryRule(),
                    new OneInitiatorRule(),
                    new BridgeLoopRule(),
                    new BridgeOpenRule(),
                    new VectorRule(),
                    new NoClockRule(),
                    new NoResetRule(),
                    new ClockLimitRule(),
                    new StreamSharedSinkRule(),
                    new StreamWidthRule(),
                    new StreamClockRule(),
                    new StreamMarksRule(),
                    new StreamSamplesRule(),
                    new OpenStreamRule(),
                    new BurstBoundaryRule(),
                    new SharedPageRule(),
                    new FixedPlaceRule(),
                    new HardBlockRule(),
                    new PllLimitsRule(),
                    new FitRule(),
                    new CloseFitRule(),
                    new OpenInterruptRule(),
                    new MissingInputRule(),
                    new SharedInputRule(),
                    new OpenOutwardRule(),
                    new PartMismatchRule(),
                    new PinRule(),
                    new ReservedPinRule(),
                    new BoardPinRule(),
                    new ReservedNameRule(),
                    new AliasRule(),
                    new BaudRule(),
                    new BusTimesRule(),
                    new RateOffRule(),
                    new ClockWishRule(),
                    new LostEdgeRule(),
                    new UnusedDomainRule());

    private Checks() {}

    /** All rules, in the order in which they matter. */
    public static List<Rule> rules() {
        return RULES;
    }

    /** All findings: errors first, then warnings and notes, accepted ones last; each group in rule order. */
    public static List<Finding> run(ElaboratedPlatform platform) {
        Map<String, Acceptance> accepted = new HashMap<>();
        platform.platform()
                .accepted()
                .forEach(entry -> accepted.put(entry.rule() + " " + entry.subject(), entry));
        List<Finding> findings = new ArrayList<>();
        for (Rule rule : RULES) {
            rule.check(platform, finding -> findings.add(judge(finding, accepted)));
        }
        findings.sort(Comparator.comparing(Finding::isAccepted).thenComparing(Finding::grade));
        return List.copyOf(findings);
    }

    private static Finding judge(Finding finding, Map<String, Acceptance> accepted) {
        Acceptance acceptance = accepted.get(finding.rule() + " " + finding.subject());
        boolean holds =
                acceptance != null
                        && finding.grade() != Grade.ERROR
                        && acceptance.isFor(finding.rule(), finding.subject(), finding.what());
        return holds ? finding.accepted(acceptance) : finding;
    }

    /** Whether anything stands in the way of building the platform. */
    public static boolean hasErrors(List<Finding> findings) {
        return findings.stream().anyMatch(finding -> finding.grade() == Grade.ERROR);
    }
}
