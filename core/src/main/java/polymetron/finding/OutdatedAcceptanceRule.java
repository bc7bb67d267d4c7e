package polymetron.finding;

import java.util.List;
import java.util.function.Consumer;
import polymetron.edit.Edit;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.platform.Acceptance;

/** A finding was accepted, and what it was about has changed or gone since. */
final class OutdatedAcceptanceRule extends PlainRule {
    OutdatedAcceptanceRule() {
        super(
                "acceptance-outdated",
                Grade.NOTE,
                "Acceptance of something that changed",
                "The reason was given for how things were. What is there now has to be looked at"
                        + " again.");
    }

    @Override
    public void check(ElaboratedPlatform platform, Consumer<Finding> report) {
        // It depends on what the other rules find.
    }

    @Override
    public void conclude(
            ElaboratedPlatform platform, List<Finding> found, Consumer<Finding> report) {
        for (Acceptance acceptance : platform.platform().accepted()) {
            boolean holds =
                    found.stream()
                            .anyMatch(
                                    finding ->
                                            finding.isAccepted()
                                                    && acceptance.isFor(
                                                            finding.rule(),
                                                            finding.subject(),
                                                            finding.what()));
            if (!holds) {
                String by = acceptance.author() == null ? "" : " by " + acceptance.author();
                String on =
                        acceptance.revision() == null
                                ? ""
                                : " on revision " + acceptance.revision();
                report.accept(
                        finding(
                                acceptance.subject(),
                                "accepted%s%s as '%s': %s"
                                        .formatted(by, on, acceptance.reason(), acceptance.what()),
                                List.of(
                                        new Fix(
                                                "Forget that acceptance",
                                                new Edit.Reopen(
                                                        acceptance.rule(),
                                                        acceptance.subject())))));
            }
        }
    }
}
