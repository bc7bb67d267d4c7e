package polymetron.finding;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;
import polymetron.edit.Edit;
import polymetron.elaborate.ElaboratedBus;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.TargetRange;
import polymetron.platform.Reserved;

/** A target lies where addresses of its bus are reserved. */
final class ReservedRangeRule extends PlainRule {
    ReservedRangeRule() {
        super(
                "range-reserved",
                Grade.WARNING,
                "Range where addresses are reserved",
                "The addresses are kept for something else, which will not find them free.");
    }

    @Override
    public void check(ElaboratedPlatform platform, Consumer<Finding> report) {
        for (ElaboratedBus bus : platform.buses()) {
            for (Reserved reserved : bus.bus().reserved()) {
                for (TargetRange target : bus.placed()) {
                    if (target.range().overlaps(reserved.range())) {
                        List<Fix> fixes = new ArrayList<>();
                        PlaceFix.of(platform, bus, target).ifPresent(fixes::add);
                        fixes.add(
                                new Fix(
                                        "No longer reserve addresses for " + reserved.name(),
                                        new Edit.Unreserve(bus.name(), reserved.name())));
                        report.accept(
                                finding(
                                        target.ref(),
                                        "%s lies at %s, reserved for %s"
                                                .formatted(
                                                        target.label(),
                                                        target.range(),
                                                        reserved.name()),
                                        fixes));
                    }
                }
            }
        }
    }
}
