package polymetron.finding;

import java.util.Optional;
import java.util.function.Consumer;
import polymetron.address.Address;
import polymetron.elaborate.ElaboratedBus;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.TargetRange;
import polymetron.placement.Followers;
import polymetron.placement.PlacementPlan;
import polymetron.placement.PlacementWish;

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
                                    fix(platform, bus, target, base).stream().toList()));
                }
            }
        }
    }

    /** Whatever is in the way and may move goes elsewhere; empty when something there may not. */
    private static Optional<Fix> fix(
            ElaboratedPlatform platform, ElaboratedBus bus, TargetRange target, Address base) {
        String label = "Place %s at %s".formatted(target.label(), base);
        if (bus.reachableSpaceWithout(target.ref()).isFree(target.form().place())) {
            return Optional.of(new Fix(label, PlaceFix.to(platform, bus, target, base)));
        }
        PlacementPlan plan = PlacementPlan.of(bus, PlacementWish.FEWEST_MOVES);
        boolean goes =
                plan.moves().stream().anyMatch(move -> move.target().ref().equals(target.ref()));
        int others = plan.moves().size() - 1;
        return goes
                ? Optional.of(
                        new Fix(
                                "%s and move %s %s"
                                        .formatted(label, others, others == 1 ? "range" : "ranges"),
                                Followers.with(platform, plan.asEdit())))
                : Optional.empty();
    }
}
