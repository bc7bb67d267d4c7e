package polymetron.finding;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;
import polymetron.AnyPlatforms;
import polymetron.Shipped;
import polymetron.edit.Edit;
import polymetron.edit.Editor;
import polymetron.edit.RejectedEdit;
import polymetron.elaborate.ElaboratedBus;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.TargetRange;
import polymetron.pin.PinAssignment;
import polymetron.placement.PlacementWish;
import polymetron.placement.PlatformPlacement;
import polymetron.platform.Platform;
import polymetron.wiring.Proposal;
import polymetron.wiring.WiringPlan;

/** What we propose ourselves breaks nothing: no plan and no fix makes an error or a warning that was not there before. */
final class PlansAgreeTest {
    private static final Editor EDITOR = new Editor(Shipped.LIBRARY);
    private static final Pattern OVERLAP =
            Pattern.compile("^(\\S+) \\(.*\\) and (\\S+) \\(.* overlap at");
    private static final int PLATFORMS = Integer.getInteger("polymetron.platforms", 40);
    private static final long SEED = Long.getLong("polymetron.seed", 1);

    /**
     * What a plan makes visible and cannot help: the whole is too large or too busy for what the user chose, a processor that
     * is now connected is never released, a block gets its first clock and turns out to be set for another. The
     * interface says so before a plan is applied.
     */
    private static final Set<String> BEYOND =
            Set.of(
                    "does-not-fit",
                    "fit-close",
                    "bus-busy",
                    "bus-overloaded",
                    "hart-never-released",
                    "rate-off",
                    "two-wire-times");

    /** What a single step leaves for the next one, and cannot do itself. */
    private static final Set<String> FOLLOWS =
            Set.of(
                    // The domain has no reset, whatever is in it.
                    "fix of initiator-without-memory -> input-without-reset",
                    "fix of stream-open -> input-without-reset",
                    // No memory of the platform is filled by the bitstream.
                    "wiring -> start-in-empty-memory",
                    "fix of initiator-without-memory -> start-in-empty-memory",
                    // The next thing that is wrong with a processor that had no memory to see.
                    "fix of range-outside -> vector-outside-memory",
                    "fix of range-outside -> range-outside",
                    "fix of target-unreached -> vector-outside-memory",
                    // A single step, and the processor that is there is not connected either.
                    "fix of interrupt-open -> target-unreached",
                    // The memory is where a vector was set to.
                    "fix of target-unreached -> start-in-empty-memory",
                    // The button says that it disconnects.
                    "fix of dangling-reference -> stream-open",
                    "fix of stream-marks -> stream-open",
                    "fix of stream-samples -> stream-open",
                    // The wiring plan sets a PLL as well, a single connection does not.
                    "fix of input-without-clock -> pll-limits",
                    // The button says that it takes the bridge off its bus.
                    "fix of bridge-loop -> target-unreached",
                    // Opened, the loop is a controller that leads nowhere.
                    "fix of interrupt-circle -> interrupt-without-hart",
                    "fix of interrupt-circle -> interrupt-open");

    private final Map<String, Integer> tried = new TreeMap<>();
    private final Map<String, Integer> withoutFix = new TreeMap<>();
    private final Map<String, List<String>> broken = new TreeMap<>();

    @Test
    void noPlanAndNoFixMakesATroubleThatWasNotThere() {
        for (int at = 0; at < PLATFORMS; at++) {
            Platform platform = new AnyPlatforms(SEED * 1_000_003 + at).worked();
            ElaboratedPlatform elaborated = Shipped.elaborate(platform);
            List<Finding> before = Checks.run(elaborated);
            String where = "seed " + SEED + " platform " + at + ": ";
            WiringPlan plan =
                    WiringPlan.propose(platform, Shipped.LIBRARY, WiringPlan.Decisions.NONE);
            apply(platform, before, "wiring", where, plan.asEdit("wire"));
            for (Proposal line : plan.proposals()) {
                for (int choice = 0; choice < line.choices().size(); choice++) {
                    WiringPlan chosen =
                            WiringPlan.propose(
                                    platform,
                                    Shipped.LIBRARY,
                                    new WiringPlan.Decisions(
                                            Set.of(), Map.of(line.key(), choice), null, null));
                    apply(
                            platform,
                            before,
                            "choice " + line.kind(),
                            where + line.choices().get(choice).label(),
                            chosen.asEdit("wire"));
                }
            }
            apply(
                    platform,
                    before,
                    "placement",
                    where,
                    PlatformPlacement.of(elaborated).asEdit(elaborated));
            apply(
                    platform,
                    before,
                    "placement with few moves",
                    where,
                    PlatformPlacement.of(elaborated, PlacementWish.FEWEST_MOVES)
                            .asEdit(elaborated));
            apply(platform, before, "pins", where, PinAssignment.of(elaborated).asEdit());
            for (Finding finding : before) {
                if (finding.grade() != Grade.NOTE) {
                    withoutFix.merge(
                            finding.rule() + (finding.fixes().isEmpty() ? " without" : " with"),
                            1,
                            Integer::sum);
                }
                for (Fix fix : finding.fixes()) {
                    if (fix.label().startsWith("Change to ")) {
                        // Another board loses what it has nothing for, and says so line by line.
                        continue;
                    }
                    apply(
                            platform,
                            before,
                            "fix of " + finding.rule(),
                            where + finding.what() + ": " + fix.label(),
                            fix.edit());
                }
            }
        }
        System.out.println("applied " + tried);
        System.out.println("findings with and without a fix " + withoutFix);
        broken.forEach(
                (what, examples) ->
                        System.out.println(
                                examples.size() + " " + what + "\n     " + examples.getFirst()));
        assertThat(broken).isEmpty();
    }

    private void apply(
            Platform platform, List<Finding> before, String what, String where, Edit edit) {
        tried.merge(what, 1, Integer::sum);
        Platform after;
        try {
            after = EDITOR.apply(platform, edit);
        } catch (RejectedEdit refused) {
            broken.computeIfAbsent(what + " is refused", key -> new ArrayList<>())
                    .add(where + refused.getMessage());
            return;
        }
        Set<String> keys = new HashSet<>();
        before.forEach(finding -> keys.add(key(finding)));
        keys.addAll(overlaps(platform));
        List<Finding> now = Checks.run(Shipped.elaborate(after));
        for (Finding finding : now) {
            if (finding.grade() != Grade.NOTE
                    && !finding.isAccepted()
                    && !keys.contains(key(finding))
                    && !isBetterThan(before, now, finding)
                    && !BEYOND.contains(finding.rule())
                    && !FOLLOWS.contains(
                            what.replaceAll(" of a .*|^choice .*", "wiring")
                                    + " -> "
                                    + finding.rule())) {
                broken.computeIfAbsent(what + " -> " + finding.rule(), key -> new ArrayList<>())
                        .add(where + "\n     -> " + finding.subject() + ": " + finding.what());
            }
        }
    }

    /** Whether the same block had something at least as bad about it, which is gone. */
    private static boolean isBetterThan(List<Finding> before, List<Finding> now, Finding finding) {
        return before.stream()
                .filter(old -> old.subjectBlock().equals(finding.subjectBlock()))
                .filter(old -> old.grade().compareTo(finding.grade()) <= 0)
                .anyMatch(
                        old ->
                                now.stream()
                                        .noneMatch(
                                                each ->
                                                        each.rule().equals(old.rule())
                                                                && each.subject()
                                                                        .equals(old.subject())));
    }

    /** Two that overlap are the same two, whichever of them begins first. */
    private static String key(Finding finding) {
        Matcher both = OVERLAP.matcher(finding.what());
        return finding.rule()
                + (both.find()
                        ? new TreeSet<>(List.of(both.group(1), both.group(2)))
                        : finding.subject());
    }

    /** All pairs that overlap; the rule reports each range with one other only. */
    private static Set<String> overlaps(Platform platform) {
        Set<String> pairs = new HashSet<>();
        for (ElaboratedBus bus : Shipped.elaborate(platform).buses()) {
            for (TargetRange one : bus.placed()) {
                for (TargetRange other : bus.placed()) {
                    if (one != other && one.range().overlaps(other.range())) {
                        pairs.add(
                                "range-overlap"
                                        + new TreeSet<>(List.of(one.label(), other.label())));
                    }
                }
            }
        }
        return pairs;
    }
}
