package polymetron.finding;

import java.util.Optional;
import java.util.function.Consumer;
import polymetron.elaborate.ElaboratedBus;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.TargetRange;

/** A target is on a bus but has no address. */
final class UnplacedRule implements Rule {
    @Override
    public String id() {
        return "range-unplaced";
    }

    @Override
    public Grade grade() {
        return Grade.ERROR;
    }

    @Override
    public String title() {
        return "Target without an address";
    }

    @Override
    public String explanation() {
        return "A target without an address cannot be reached.";
    }

    @Override
    public void check(ElaboratedPlatform platform, Consumer<Finding> report) {
        for (ElaboratedBus bus : platform.buses()) {
            for (TargetRange target : bus.unplaced()) {
                Optional<Fix> place = PlaceFix.of(platform, bus, target);
                String what = "%s is on %s but has no base".formatted(target.label(), bus.name());
                report.accept(
                        finding(
                                target.ref(),
                                place.isPresent()
                                        ? what
                                        : what + ", and no gap is large enough for it",
                                place.stream().toList()));
            }
        }
    }
}
