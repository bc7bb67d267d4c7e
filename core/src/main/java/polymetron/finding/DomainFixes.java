package polymetron.finding;

import java.util.List;
import polymetron.edit.Edit;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.ElaboratedPlatform;

/** The fixes that put a clock or reset input into one of the platform's domains. */
final class DomainFixes {
    private DomainFixes() {}

    static List<Fix> of(ElaboratedPlatform platform, ElaboratedBlock block, String port) {
        return platform.domains().stream()
                .map(
                        domain ->
                                new Fix(
                                        "Connect %s.%s to %s"
                                                .formatted(block.name(), port, domain.name()),
                                        new Edit.SetDomain(block.name(), port, domain.name())))
                .toList();
    }
}
