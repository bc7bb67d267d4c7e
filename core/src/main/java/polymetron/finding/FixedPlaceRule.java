package polymetron.finding;

import java.util.List;
import java.util.function.Consumer;
import polymetron.address.Address;
import polymetron.edit.Edit;
import polymetron.elaborate.ElaboratedBus;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.TargetRange;

/** A target with a fixed place that is somewhere else. */
final class FixedPlaceRule implements Rule {
    @Override
    public String id() {
        return "place-fixed";
    }

    @Override
    public Grade grade() {
        return Grade.ERROR;
    }

    @Override
    public String title() {
        return "Target away from its fixed place";
    }

    @Override
    public String explanation() {
        return "The block answers at one address only, whatever the platform says.";
    }

    @Override
    public void check(ElaboratedPlatform platform, Consumer<Finding> report) {
        for (ElaboratedBus bus : platform.buses()) {
            for (TargetRange target : bus.placed()) {
                if (target.form().place() != null
                        && !target.form().place().equals(target.range())) {
                    Address base = new Address(target.form().place().base());
                    report.accept(
                            finding(
                                    target.ref(),
                                    "%s is at %s; it always answers at %s"
                                            .formatted(
                                                    target.label(),
                                                    new Address(target.range().base()),
                                                    base),
                                    List.of(
                                            new Fix(
                                                    "Place %s at %s"
                                                            .formatted(target.label(), base),
                                                    new Edit.Attach(
                                                            target.block().name(),
                                                            target.form().name(),
                                                            bus.name(),
                                                            base,
                                                            null)))));
                }
            }
        }
    }
}
