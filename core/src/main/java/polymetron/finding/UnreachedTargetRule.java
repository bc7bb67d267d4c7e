package polymetron.finding;

import java.util.ArrayList;
import java.util.Collections;
import java.util.HashSet;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Set;
import java.util.function.Consumer;
import polymetron.address.Address;
import polymetron.bus.Adapters;
import polymetron.edit.Edit;
import polymetron.elaborate.AddressSpace;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.ElaboratedBus;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.InterfaceRef;
import polymetron.elaborate.SizedInterface;
import polymetron.elaborate.TargetRange;
import polymetron.placement.Placement;
import polymetron.placement.StartVectors;

/** No initiator gets to a target. */
final class UnreachedTargetRule implements Rule {
    @Override
    public String id() {
        return "target-unreached";
    }

    @Override
    public Grade grade() {
        return Grade.WARNING;
    }

    @Override
    public String title() {
        return "Unreachable target";
    }

    @Override
    public String explanation() {
        return "No processor can use the block: software never sees it, and it takes up the device"
                + " for nothing.";
    }

    @Override
    public void check(ElaboratedPlatform platform, Consumer<Finding> report) {
        Looks looks = new Looks();
        Set<InterfaceRef> attached = new HashSet<>();
        Set<InterfaceRef> reached = new HashSet<>();
        Set<List<TargetRange>> counted = Collections.newSetFromMap(new IdentityHashMap<>());
        Set<InterfaceRef> executed = new HashSet<>();
        for (AddressSpace space : platform.spaces()) {
            if (space.initiator().fetches()) {
                space.ranges().forEach(target -> executed.add(target.ref()));
            }
            // Initiators of one bus that see the same share the list of it.
            if (!space.initiator().fetches() && counted.add(space.ranges())) {
                space.ranges().forEach(target -> reached.add(target.ref()));
            }
        }
        List<ElaboratedBus> driven = new ArrayList<>();
        for (ElaboratedBus bus : platform.buses()) {
            bus.placed().forEach(target -> attached.add(target.ref()));
            bus.unplaced().forEach(target -> attached.add(target.ref()));
            boolean isDriven =
                    bus.initiators().stream().anyMatch(initiator -> !initiator.fetches());
            if (isDriven) {
                driven.add(bus);
            }
            for (TargetRange target : bus.placed()) {
                // The window of a bridge is no place of its own; what lies behind it is.
                // A bus for instructions alone is of use all the same.
                if (!isDriven && !executed.contains(target.ref())) {
                    report.accept(
                            finding(
                                            target.ref(),
                                            "%s is on %s, which no data initiator drives"
                                                    .formatted(target.label(), bus.name()),
                                            List.of())
                                    .because("no data initiator drives " + bus.name()));
                } else if (isDriven
                        && !target.isWindow()
                        && !reached.contains(target.ref())
                        && bus.window().contains(target.range())) {
                    report.accept(
                            finding(
                                    target.ref(),
                                    "%s is on %s, but it is unreachable from any processor"
                                            .formatted(target.label(), bus.name()),
                                    letIn(platform, target)));
                }
            }
        }
        for (ElaboratedBlock block : platform.blocks()) {
            for (SizedInterface form : block.shape().busInterfaces()) {
                InterfaceRef ref = new InterfaceRef(block.name(), form.name());
                if (form.isTarget() && form.isForBus() && !attached.contains(ref)) {
                    report.accept(
                            finding(
                                    ref,
                                    "%s is on no bus".formatted(ref),
                                    fixes(platform, driven, ref, form, looks)));
                }
            }
        }
    }

    /** Where it is only hidden, it can be let in again. */
    private static List<Fix> letIn(ElaboratedPlatform platform, TargetRange target) {
        List<Fix> fixes = new ArrayList<>();
        for (AddressSpace space : platform.spaces()) {
            boolean isHidden =
                    space.hidden().stream().anyMatch(each -> each.ref().equals(target.ref()));
            if (isHidden && !space.initiator().fetches()) {
                InterfaceRef from = space.initiator().ref();
                fixes.add(
                        new Fix(
                                "Let %s reach %s"
                                        .formatted(space.initiator().label(), target.label()),
                                new Edit.SetReach(
                                        from.block(),
                                        from.name(),
                                        target.block().name(),
                                        target.form().name(),
                                        true)));
            }
        }
        return fixes;
    }

    private static List<Fix> fixes(
            ElaboratedPlatform platform,
            List<ElaboratedBus> buses,
            InterfaceRef ref,
            SizedInterface form,
            Looks looks) {
        List<Fix> fixes = new ArrayList<>();
        for (ElaboratedBus bus : buses) {
            Address base =
                    Adapters.canJoin(form.type().protocols(), bus.bus().protocol())
                            ? Placement.baseFor(bus, ref, form).orElse(null)
                            : null;
            if (base != null) {
                Edit attach = new Edit.Attach(ref.block(), ref.name(), bus.name(), base, null);
                fixes.add(
                        new Fix(
                                "Put %s on %s at %s".formatted(ref.block(), bus.name(), base),
                                form.isMemory() && looks.take()
                                        ? StartVectors.with(platform, attach)
                                        : attach));
            }
        }
        return fixes;
    }
}
