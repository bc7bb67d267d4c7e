package polymetron.finding;

import java.util.Optional;
import polymetron.edit.Edit;
import polymetron.elaborate.ElaboratedBus;
import polymetron.elaborate.TargetRange;
import polymetron.placement.Placement;

/** The fix that moves a range to a free place. */
final class PlaceFix {
    /** On a bus with more targets each search takes long, and there may be one for every target. */
    private static final int MOST_TARGETS = 1000;

    private PlaceFix() {}

    /** Empty for a held range, when there is no free place, and on a bus with very many targets. */
    static Optional<Fix> of(ElaboratedBus bus, TargetRange target) {
        if (target.held() || bus.placed().size() > MOST_TARGETS) {
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
