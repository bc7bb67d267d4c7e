package polymetron.finding;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.junit.jupiter.api.RepeatedTest;
import org.junit.jupiter.api.RepetitionInfo;
import polymetron.AnyPlatforms;
import polymetron.Shipped;
import polymetron.edit.Editor;
import polymetron.platform.Platform;

/** However a platform was broken: every button that a finding offers can be pressed, and settling a group comes to an end. */
final class AnyFixTest {
    private static final Editor EDITOR = new Editor(Shipped.LIBRARY);

    @RepeatedTest(60)
    void everyFixCanBeAppliedAndIsNoSecondTime(RepetitionInfo repetition) {
        Platform platform = new AnyPlatforms(repetition.getCurrentRepetition()).broken();
        List<Finding> findings = Checks.run(Shipped.elaborate(platform));
        for (Finding finding : findings) {
            assertThat(Checks.step(finding.rule())).as(finding.rule()).isNotNull();
            for (Fix fix : finding.fixes()) {
                Platform fixed = EDITOR.apply(platform, fix.edit());
                assertThat(fixed).as(finding.what() + ": " + fix.label()).isNotEqualTo(platform);
                // The same words do not come again, or the button would do nothing.
                assertThat(Checks.run(Shipped.elaborate(fixed)))
                        .as(finding.what() + ": " + fix.label())
                        .noneMatch(
                                after ->
                                        after.rule().equals(finding.rule())
                                                && after.subject().equals(finding.subject())
                                                && after.what().equals(finding.what()));
            }
        }
        int members = 0;
        for (FindingGroups.Group group : FindingGroups.of(findings)) {
            members += group.findings().size();
            String key = FindingGroups.key(group.findings().getFirst());
            FixAll.of(Shipped.LIBRARY, platform, key)
                    .ifPresent(edit -> assertThat(EDITOR.apply(platform, edit)).isNotNull());
        }
        assertThat(members).isEqualTo(findings.size());
    }
}
