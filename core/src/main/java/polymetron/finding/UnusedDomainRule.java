package polymetron.finding;

import java.util.List;
import java.util.function.Consumer;
import polymetron.edit.Edit;
import polymetron.elaborate.Domain;
import polymetron.elaborate.ElaboratedPlatform;

/** A clock domain that nothing runs on. */
final class UnusedDomainRule extends PlainRule {
    UnusedDomainRule() {
        super(
                "domain-unused",
                Grade.NOTE,
                "Clock domain without a block",
                "Nothing runs on it. It takes a clock network, and perhaps a PLL output, for"
                        + " nothing.");
    }

    @Override
    public void check(ElaboratedPlatform platform, Consumer<Finding> report) {
        if (platform.blocks().isEmpty()) {
            return;
        }
        for (Domain domain : platform.domains()) {
            boolean used =
                    platform.blocks().stream()
                                    .anyMatch(
                                            block ->
                                                    block.block()
                                                            .domains()
                                                            .containsValue(domain.name()))
                            || platform.buses().stream()
                                    .anyMatch(bus -> domain.name().equals(bus.bus().domain()));
            if (!used) {
                String label = "Remove clock domain %s".formatted(domain.name());
                report.accept(
                        finding(
                                domain.name(),
                                "nothing runs on clock domain %s".formatted(domain.name()),
                                List.of(
                                        new Fix(
                                                label,
                                                new Edit.RemoveDomain(domain.name(), null)))));
            }
        }
    }
}
