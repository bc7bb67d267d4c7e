package polymetron.finding;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.platform.Acceptance;

/** Runs every rule and ranks what they find. */
public final class Checks {
    private static final Map<Step, List<Rule>> BY_STEP = new EnumMap<>(Step.class);
    private static final List<Rule> RULES = new ArrayList<>();
    private static final Map<String, Rule> BY_ID = new HashMap<>();
    private static final Map<String, Step> STEPS = new HashMap<>();

    static {
        BY_STEP.put(
                Step.COMPOSE,
                List.of(
                        new DanglingReferenceRule(),
                        new ParameterRule(),
                        new NoMemoryRule(),
                        new OneInitiatorRule(),
                        new BridgeLoopRule(),
                        new BridgeOpenRule(),
                        new HardBlockRule(),
                        new StreamSharedSinkRule(),
                        new StreamWidthRule(),
                        new StreamClockRule(),
                        new StreamMarksRule(),
                        new StreamSamplesRule(),
                        new OpenStreamRule(),
                        new UnreachedTargetRule(),
                        new HartNumberRule(),
                        BusLoadRule.overloaded(),
                        BusLoadRule.busy(),
                        new SharedPriorityRule(),
                        new EmptyBusRule(),
                        new LostBurstRule(),
                        new LostWidthRule(),
                        new WideReadRule(),
                        new OutdatedAcceptanceRule()));
        BY_STEP.put(
                Step.ADDRESSES,
                List.of(
                        new OverlapRule(),
                        new MisalignedRule(),
                        new OutsideBusRule(),
                        new UnplacedRule(),
                        new VectorRule(),
                        new ProgramApartRule(),
                        new ProgramRoomRule(),
                        new DividedMemoryRule(),
                        new BufferPlaceRule(),
                        new BufferOverlapRule(),
                        new BeyondAddressesRule(),
                        new BurstBoundaryRule(),
                        new SharedPageRule(),
                        new FixedPlaceRule(),
                        new AliasRule(),
                        new ReservedRangeRule(),
                        new AddressDiffersRule(),
                        new EmptyStartRule(),
                        new SlowFetchRule()));
        BY_STEP.put(
                Step.INTERRUPTS,
                List.of(
                        new OpenInterruptRule(),
                        new MissingInputRule(),
                        new SharedInputRule(),
                        new LostEdgeRule(),
                        new TriggerRule(),
                        new CascadeLoopRule(),
                        new NoHartRule(),
                        new InterruptPriorityRule(),
                        new UnusedInputsRule()));
        BY_STEP.put(
                Step.CLOCKS,
                List.of(
                        new NoClockRule(),
                        new NoResetRule(),
                        new ClockLimitRule(),
                        new PllLimitsRule(),
                        new BaudRule(),
                        new BusTimesRule(),
                        new RateOffRule(),
                        new ClockWishRule(),
                        new ClockCircleRule(),
                        new EarlyResetRule(),
                        new ForeignResetRule(),
                        new UnusedDomainRule(),
                        new UnusedResetRule(),
                        new UnusedClockRule()));
        BY_STEP.put(
                Step.PINS,
                List.of(
                        new OpenOutwardRule(),
                        new PartMismatchRule(),
                        new PinRule(),
                        new ReservedPinRule(),
                        new BoardPinRule(),
                        new PinStandardRule(),
                        new PinDriveRule(),
                        new PinPairRule(),
                        new PinIdleSettingRule(),
                        new ClockPinRule(),
                        new NoConsoleRule()));
        BY_STEP.put(Step.FIT, List.of(new FitRule(), new CloseFitRule(), new WastefulMemoryRule()));
        BY_STEP.put(
                Step.HAND_OFF,
                List.of(
                        new ReservedNameRule(),
                        new HeaderNameRule(),
                        new PlatformNameRule(),
                        new HartReleaseRule(),
                        new SeveralConsolesRule(),
                        new TimeMissingRule(),
                        new TimersDifferRule()));
        BY_STEP.forEach(
                (step, rules) -> {
                    for (Rule rule : rules) {
                        RULES.add(rule);
                        BY_ID.put(rule.id(), rule);
                        STEPS.put(rule.id(), step);
                    }
                });
    }

    private Checks() {}

    /** All rules, in the order of the steps that they stand in the way of. */
    public static List<Rule> rules() {
        return List.copyOf(RULES);
    }

    /**
     * @throws IllegalArgumentException when there is no rule of that identity
     */
    public static Rule rule(String id) {
        Rule rule = BY_ID.get(id);
        if (rule == null) {
            throw new IllegalArgumentException("there is no rule " + id);
        }
        return rule;
    }

    /** The step of the job that the findings of a rule stand in the way of. */
    public static Step step(String id) {
        return STEPS.get(id);
    }

    /**
     * All findings: errors first, then warnings and notes, accepted ones last; those that stand in the way of an earlier
     * step before those of a later one.
     */
    public static List<Finding> run(ElaboratedPlatform platform) {
        Map<String, Acceptance> accepted = new HashMap<>();
        platform.platform()
                .accepted()
                .forEach(entry -> accepted.put(entry.rule() + " " + entry.subject(), entry));
        List<Finding> findings = new ArrayList<>();
        for (Rule rule : RULES) {
            rule.check(platform, finding -> findings.add(judge(finding, accepted)));
        }
        List<Finding> found = List.copyOf(findings);
        for (Rule rule : RULES) {
            rule.conclude(platform, found, finding -> findings.add(judge(finding, accepted)));
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
