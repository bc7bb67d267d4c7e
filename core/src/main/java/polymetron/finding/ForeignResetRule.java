package polymetron.finding;

import java.util.List;
import java.util.function.Consumer;
import polymetron.clock.ForeignReset;
import polymetron.edit.Edit;
import polymetron.elaborate.ElaboratedPlatform;

/** A block that is reset in another clock domain than it runs in. */
final class ForeignResetRule extends PlainRule {
    ForeignResetRule() {
        super(
                "reset-from-other-domain",
                Grade.WARNING,
                "Reset from another clock domain",
                "A reset is released in step with the clock of its own domain. For a block on"
                        + " another clock it is released at any moment of the cycle, and its"
                        + " registers may leave reset in different cycles.");
    }

    @Override
    public void check(ElaboratedPlatform platform, Consumer<Finding> report) {
        for (ForeignReset each : ForeignReset.of(platform)) {
            String input = each.block().name() + "." + each.reset().name();
            report.accept(
                    finding(
                            input,
                            "%s is reset in domain %s, but runs on the clock of %s"
                                    .formatted(input, each.from().name(), each.to().name()),
                            each.to().hasReset()
                                    ? List.of(
                                            new Fix(
                                                    "Connect %s to %s"
                                                            .formatted(input, each.to().name()),
                                                    new Edit.SetDomain(
                                                            each.block().name(),
                                                            each.reset().name(),
                                                            each.to().name())))
                                    : DomainResetFixes.of(platform, each.to())));
        }
    }
}
