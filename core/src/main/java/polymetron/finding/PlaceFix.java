package polymetron.finding;

import java.util.Optional;
import polymetron.address.Address;
import polymetron.edit.Edit;
import polymetron.elaborate.ElaboratedBus;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.TargetRange;
import polymetron.placement.Followers;
import polymetron.placement.Placement;

/** The fix that moves a range to a free place. */
final class PlaceFix {
    /** On a bus with more targets each search takes long, and there may be one for every target. */
    private static final int MOST_TARGETS = 1000;

    /** On a bus with more targets what points into a memory is left to the checks. */
    private static final int MOST_LOOKED_AT = 100;

    private PlaceFix() {}

    /** Empty for a held range, when there is no free place, and on a bus with very many targets. */
    static Optional<Fix> of(ElaboratedPlatform platform, ElaboratedBus bus, TargetRange target) {
        if (target.held() || bus.placed().size() > MOST_TARGETS) {
            return Optional.empty();
        }
        return Placement.baseFor(bus, target.ref(), target.form())
                .map(
                        base ->
                                new Fix(
                                        "Place %s at %s".formatted(target.label(), base),
                                        to(platform, bus, target, base)));
    }

    /** The edit that moves a range, with what points into it. */
    static Edit to(
            ElaboratedPlatform platform, ElaboratedBus bus, TargetRange target, Address base) {
        Edit move =
                new Edit.Attach(
                        target.block().name(),
                        target.form().name(),
                        bus.name(),
                        base,
                        target.held());
        boolean followed =
                bus.placed().size() <= MOST_LOOKED_AT
                        && Followers.pointInto(platform, target.ref());
        return followed ? Followers.with(platform, move) : move;
    }
}
