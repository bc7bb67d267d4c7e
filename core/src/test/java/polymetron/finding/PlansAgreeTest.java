package polymetron.finding;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import org.junit.jupiter.api.Test;
import polymetron.AnyPlatforms;
import polymetron.Shipped;
import polymetron.edit.Edit;
import polymetron.edit.Editor;
import polymetron.edit.RejectedEdit;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.pin.PinAssignment;
import polymetron.placement.PlacementPlan;
import polymetron.placement.PlatformPlacement;
import polymetron.platform.Platform;
import polymetron.wiring.Proposal;
import polymetron.wiring.WiringPlan;

/** What we propose ourselves breaks nothing: no plan and no fix makes an error or a warning that was not there before. */
final class PlansAgreeTest {
    private static final Editor EDITOR = new Editor(Shipped.LIBRARY);
    private static final int PLATFORMS = Integer.getInteger("polymetron.platforms", 40);
    private static final long SEED = Long.getLong("polymetron.seed", 1);

    private final Map<String, Integer> tried = new TreeMap<>();
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
                    PlatformPlacement.of(elaborated).asEdit());
            elaborated
                    .buses()
                    .forEach(
                            bus ->
                                    apply(
                                            platform,
                                            before,
                                            "placement of a bus",
                                            where + bus.name(),
                                            PlacementPlan.of(bus).asEdit()));
            apply(platform, before, "pins", where, PinAssignment.of(elaborated).asEdit());
            for (Finding finding : before) {
                for (Fix fix : finding.fixes()) {
                    apply(
                            platform,
                            before,
                            "fix of " + finding.rule(),
                            where + finding.what() + ": " + fix.label(),
                            fix.edit());
                }
            }
        }
        System.out.println("tried " + tried);
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
        Map<String, Integer> known = new HashMap<>();
        Set<String> keys = new HashSet<>();
        before.forEach(finding -> known.merge(finding.rule(), 1, Integer::sum));
        before.forEach(finding -> keys.add(finding.rule() + finding.subject()));
        List<Finding> now = Checks.run(Shipped.elaborate(after));
        for (Finding finding : now) {
            if (finding.grade() != Grade.NOTE
                    && !finding.isAccepted()
                    && !keys.contains(finding.rule() + finding.subject())) {
                broken.computeIfAbsent(what + " -> " + finding.rule(), key -> new ArrayList<>())
                        .add(where + "\n     -> " + finding.subject() + ": " + finding.what());
            }
        }
    }
}
