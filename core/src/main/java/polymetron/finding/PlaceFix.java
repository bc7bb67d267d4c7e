package polymetron.finding;

import java.util.Optional;
import polymetron.edit.Edit;
import polymetron.elaborate.ElaboratedBus;
import polymetron.elaborate.TargetRange;
import polymetron.placement.Placement;

/** The fix that moves a range to a free place. */
final class PlaceFix {
    private PlaceFix() {}

    /** Empty for a held range, and when there is no free place. */
    static Optional<Fix> of(ElaboratedBus bus, TargetRange target) {
        if (target.held()) {
            return Optional.empty();
        }
        return Placement.baseFor(bus, target.ref(), target.form())
                .map(
                        base ->
                                new Fix(
                                        "Place %s at %s".formatted(target.label(), base),
                                        new Edit.Attach(
                                                target.block().name(),
                                                target.form().name(),
                                                bus.name(),
                                                base,
                                                null)));
    }
}
