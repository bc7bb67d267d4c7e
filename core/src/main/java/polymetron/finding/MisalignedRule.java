package polymetron.finding;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;
import polymetron.address.Address;
import polymetron.address.AddressRange;
import polymetron.elaborate.ElaboratedBus;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.TargetRange;

/** A base is no multiple of the size rounded up to a power of two. */
final class MisalignedRule implements Rule {
    @Override
    public String id() {
        return "range-misaligned";
    }

    @Override
    public Grade grade() {
        return Grade.ERROR;
    }

    @Override
    public String title() {
        return "Misaligned base";
    }

    @Override
    public String explanation() {
        return "A target decodes its low address bits itself, so its base must be a multiple of its"
                + " size rounded up to a power of two. Elsewhere its registers would appear in a"
                + " rotated order.";
    }

    @Override
    public void check(ElaboratedPlatform platform, Consumer<Finding> report) {
        for (ElaboratedBus bus : platform.buses()) {
            for (TargetRange target : bus.placed()) {
                long alignment = Address.powerOfTwoAtLeast(target.form().sizeBytes());
                if ((target.range().base() & (alignment - 1)) != 0) {
                    report.accept(misaligned(platform, bus, target, alignment));
                }
            }
        }
    }

    private Finding misaligned(
            ElaboratedPlatform platform, ElaboratedBus bus, TargetRange target, long alignment) {
        List<Fix> fixes = new ArrayList<>();
        Address down = new Address(target.range().base() & -alignment);
        AddressRange there = AddressRange.of(down.bits(), target.form().sizeBytes());
        // Nothing else may be there, and the bus has to lead there.
        if (bus.reachableSpaceWithout(target.ref()).isFree(there)) {
            fixes.add(
                    new Fix(
                            "Align down to %s".formatted(down),
                            PlaceFix.to(platform, bus, target, down)));
        }
        PlaceFix.of(platform, bus, target).ifPresent(fixes::add);
        return finding(
                target.ref(),
                "%s begins at %s, which is not a multiple of %s"
                        .formatted(
                                target.label(),
                                Address.format(target.range().base()),
                                Address.formatSize(alignment)),
                fixes);
    }
}
