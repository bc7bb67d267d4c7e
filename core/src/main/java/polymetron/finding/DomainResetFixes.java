package polymetron.finding;

import java.util.ArrayList;
import java.util.List;
import polymetron.edit.Edit;
import polymetron.elaborate.Domain;
import polymetron.elaborate.ElaboratedPlatform;

/** The fixes that give a clock domain one of the board's resets. */
final class DomainResetFixes {
    private DomainResetFixes() {}

    static List<Fix> of(ElaboratedPlatform platform, Domain domain) {
        List<Fix> fixes = new ArrayList<>();
        if (platform.board() != null) {
            platform.board()
                    .resets()
                    .forEach(
                            reset ->
                                    fixes.add(
                                            new Fix(
                                                    "Reset %s by %s"
                                                            .formatted(domain.name(), reset.name()),
                                                    new Edit.ChangeDomain(
                                                            domain.domain()
                                                                    .withReset(reset.name())))));
        }
        return fixes;
    }
}
