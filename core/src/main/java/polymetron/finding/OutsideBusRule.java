package polymetron.finding;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import polymetron.address.Address;
import polymetron.address.AddressRange;
import polymetron.edit.Edit;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.ElaboratedBus;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.InterfaceRef;
import polymetron.elaborate.SizedInterface;
import polymetron.elaborate.TargetRange;
import polymetron.platform.Bus;

/** A range does not fit between the bus's first and last address. */
final class OutsideBusRule implements Rule {
    private static final long LARGEST_WINDOW = 1L << 30;

    @Override
    public String id() {
        return "range-outside";
    }

    @Override
    public Grade grade() {
        return Grade.ERROR;
    }

    @Override
    public String title() {
        return "Range outside the address width";
    }

    @Override
    public String explanation() {
        return "The bus has no lines for the upper address bits, so no initiator can reach that"
                + " part of the range.";
    }

    @Override
    public void check(ElaboratedPlatform platform, Consumer<Finding> report) {
        for (ElaboratedBus bus : platform.buses()) {
            for (TargetRange target : bus.placed()) {
                boolean cut = target.range().sizeBytes() != target.form().sizeBytes();
                if (cut || !bus.window().contains(target.range())) {
                    report.accept(outside(platform, bus, target));
                }
            }
        }
    }

    private Finding outside(ElaboratedPlatform platform, ElaboratedBus bus, TargetRange target) {
        List<Fix> fixes = new ArrayList<>();
        PlaceFix.of(platform, bus, target).ifPresent(fixes::add);
        boolean isShown = !bus.isBehindBridge() || bus.initiators().size() > 1;
        if (isShown) {
            moreAddressBits(bus, target).map(edit -> bits(bus, edit)).ifPresent(fixes::add);
        } else {
            fixes.addAll(widen(platform, bus, target));
        }
        return finding(
                target.ref(),
                isShown
                        ? "%s from %s with %s passes the last address of %s, %s"
                                .formatted(
                                        target.label(),
                                        Address.format(target.range().base()),
                                        Address.formatSize(target.form().sizeBytes()),
                                        bus.name(),
                                        Address.format(bus.window().last()))
                        : "%s from %s with %s lies outside what the bridge shows of %s, %s"
                                .formatted(
                                        target.label(),
                                        Address.format(target.range().base()),
                                        Address.formatSize(target.form().sizeBytes()),
                                        bus.name(),
                                        bus.window()),
                fixes);
    }

    private static Fix bits(ElaboratedBus bus, Edit.ChangeBus edit) {
        return new Fix(
                "Give %s %s address bits".formatted(bus.name(), edit.bus().addressWidth()), edit);
    }

    private static Optional<Edit.ChangeBus> moreAddressBits(ElaboratedBus bus, TargetRange target) {
        int needed = 64 - Long.numberOfLeadingZeros(target.range().last());
        Bus old = bus.bus();
        return needed <= old.addressWidth()
                ? Optional.empty()
                : Optional.of(new Edit.ChangeBus(old.withAddressWidth(needed)));
    }

    /** A window twice as large, and so on, until the target is in it. */
    private static List<Fix> widen(
            ElaboratedPlatform platform, ElaboratedBus bus, TargetRange target) {
        ElaboratedBlock bridge = bus.initiators().getFirst().block();
        long size = bus.window().sizeBytes();
        long needed = target.range().last() - bus.window().base() + 1;
        Optional<String> window =
                bridge.shape()
                        .busInterface(bridge.shape().bridge().upstream())
                        .flatMap(SizedInterface::sizeParameter);
        boolean isBelow = Long.compareUnsigned(target.range().base(), bus.window().base()) < 0;
        if (isBelow || window.isEmpty() || Long.compareUnsigned(needed, LARGEST_WINDOW) > 0) {
            return List.of();
        }
        while (Long.compareUnsigned(size, needed) < 0) {
            size *= 2;
        }
        InterfaceRef upstream = new InterfaceRef(bridge.name(), bridge.shape().bridge().upstream());
        ElaboratedBus front = front(platform, upstream);
        TargetRange shown = front == null ? null : placed(front, upstream);
        List<Edit> edits = new ArrayList<>();
        edits.add(new Edit.SetParameter(bridge.name(), window.get(), Long.toString(size)));
        String what = "%s to %s".formatted(bridge.name(), Address.formatSize(size));
        if (shown != null && !hasRoom(front, shown, size)) {
            // Where it begins now it cannot be as large, so it goes where it can.
            Optional<Address> base =
                    shown.held()
                            ? Optional.empty()
                            : front.reachableSpaceWithout(upstream)
                                    .place(size, shown.range().base());
            if (base.isEmpty()) {
                return List.of();
            }
            edits.add(
                    new Edit.Attach(
                            upstream.block(), upstream.name(), front.name(), base.get(), null));
            what += " and move it to " + base.get();
        }
        moreAddressBits(bus, target).ifPresent(edits::add);
        return List.of(new Fix("Widen " + what, new Edit.Several("widen " + what, edits)));
    }

    private static ElaboratedBus front(ElaboratedPlatform platform, InterfaceRef upstream) {
        return platform.buses().stream()
                .filter(bus -> placed(bus, upstream) != null)
                .findFirst()
                .orElse(null);
    }

    private static TargetRange placed(ElaboratedBus bus, InterfaceRef ref) {
        return bus.placed().stream()
                .filter(target -> target.ref().equals(ref))
                .findFirst()
                .orElse(null);
    }

    /** Whether a window can be larger where it begins now. */
    private static boolean hasRoom(ElaboratedBus front, TargetRange window, long sizeBytes) {
        long base = window.range().base();
        return (base & (Address.powerOfTwoAtLeast(sizeBytes) - 1)) == 0
                && front.reachableSpaceWithout(window.ref())
                        .isFree(AddressRange.of(base, sizeBytes));
    }
}
