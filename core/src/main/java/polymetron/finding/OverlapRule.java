package polymetron.finding;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;
import polymetron.address.AddressRange;
import polymetron.elaborate.ElaboratedBus;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.TargetRange;

/** Two targets of a bus answer at the same address. One pass over the sorted ranges finds a partner for each. */
final class OverlapRule implements Rule {
    @Override
    public String id() {
        return "range-overlap";
    }

    @Override
    public Grade grade() {
        return Grade.ERROR;
    }

    @Override
    public String title() {
        return "Overlapping ranges";
    }

    @Override
    public String explanation() {
        return "Two targets would answer at the same address: reads return either, and writes reach"
                + " both.";
    }

    @Override
    public void check(ElaboratedPlatform platform, Consumer<Finding> report) {
        for (ElaboratedBus bus : platform.buses()) {
            TargetRange furthest = null;
            for (TargetRange target : bus.placed()) {
                if (furthest != null && furthest.range().overlaps(target.range())) {
                    report.accept(overlap(platform, bus, furthest, target));
                }
                if (furthest == null
                        || Long.compareUnsigned(target.range().last(), furthest.range().last())
                                > 0) {
                    furthest = target;
                }
            }
        }
    }

    private Finding overlap(
            ElaboratedPlatform platform, ElaboratedBus bus, TargetRange one, TargetRange other) {
        AddressRange shared =
                new AddressRange(
                        other.range().base(),
                        Long.compareUnsigned(one.range().last(), other.range().last()) < 0
                                ? one.range().last()
                                : other.range().last());
        List<Fix> fixes = new ArrayList<>();
        PlaceFix.of(platform, bus, other).ifPresent(fixes::add);
        PlaceFix.of(platform, bus, one).ifPresent(fixes::add);
        return finding(
                other.ref(),
                "%s (%s) and %s (%s) overlap at %s"
                        .formatted(other.label(), other.range(), one.label(), one.range(), shared),
                fixes);
    }
}
