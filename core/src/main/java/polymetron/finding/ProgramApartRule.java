package polymetron.finding;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;
import polymetron.address.Address;
import polymetron.address.AddressRange;
import polymetron.edit.Edit;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.ElaboratedBus;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.TargetRange;
import polymetron.handoff.SoftwareView;
import polymetron.library.Kind;
import polymetron.program.ProgramPlace;
import polymetron.program.Reading;

/** A processor executes its program where it does not find the same bytes as data. */
final class ProgramApartRule extends PlainRule {
    ProgramApartRule() {
        super(
                "program-apart",
                Grade.ERROR,
                "Program that cannot be linked",
                "Constants and the first values of variables lie in a program beside its"
                    + " instructions. They are linked to one address, at which the processor has to"
                    + " find the same memory when it loads as when it executes, or nothing.");
    }

    @Override
    public void check(ElaboratedPlatform platform, Consumer<Finding> report) {
        for (ElaboratedBlock block : platform.blocks()) {
            if (block.kind() == Kind.PROCESSOR) {
                ProgramPlace.of(platform, block)
                        .filter(place -> place.program() != null)
                        .ifPresent(place -> check(platform, place, report));
            }
        }
    }

    private void check(ElaboratedPlatform platform, ProgramPlace place, Consumer<Finding> report) {
        String memory = place.program().label();
        String base = Address.format(place.program().range().base());
        switch (place.reading()) {
            case SAME_ADDRESS -> {}
            case ELSEWHERE ->
                    report(
                            place,
                            "%s executes from %s at %s, but loads from the same memory at %s"
                                    .formatted(
                                            place.processor().name(),
                                            memory,
                                            base,
                                            Address.format(place.asData().range().base())),
                            moveTo(platform, place, place.program().range().base()),
                            report);
            case COVERED ->
                    report(
                            place,
                            "%s executes from %s at %s, but finds %s there when it loads"
                                    .formatted(
                                            place.processor().name(),
                                            memory,
                                            base,
                                            place.asData().label()),
                            moveBehind(platform, place),
                            report);
            case HIDDEN -> {
                SoftwareView view = SoftwareView.of(platform);
                if (view.processor() == place.processor() && view.dataMemory().isEmpty()) {
                    report(
                            place,
                            "%s cannot load from %s, and reaches no memory that the bitstream fills"
                                    .formatted(place.processor().name(), memory),
                            List.of(),
                            report);
                }
            }
        }
    }

    private void report(
            ProgramPlace place, String what, List<Fix> fixes, Consumer<Finding> report) {
        report.accept(finding(place.processor().name() + ".RESET_VECTOR", what, fixes));
    }

    /** Moves the data port of the program's memory to where it is executed, when that is free. */
    private static List<Fix> moveTo(ElaboratedPlatform platform, ProgramPlace place, long base) {
        TargetRange port = place.asData();
        ElaboratedBus bus = busOf(platform, port);
        if (bus == null || !isFree(bus, port, base)) {
            return List.of();
        }
        return List.of(fix(bus, port, base));
    }

    /** Moves what covers the program to the first place behind it. */
    private static List<Fix> moveBehind(ElaboratedPlatform platform, ProgramPlace place) {
        TargetRange port = place.asData();
        ElaboratedBus bus = busOf(platform, port);
        if (bus == null || place.reading() != Reading.COVERED) {
            return List.of();
        }
        long step = Address.powerOfTwoAtLeast(port.form().sizeBytes());
        long end = place.program().range().last();
        List<Long> candidates = new ArrayList<>();
        candidates.add(Long.divideUnsigned(end, step) * step + step);
        bus.placed()
                .forEach(
                        other ->
                                candidates.add(
                                        Long.divideUnsigned(other.range().last(), step) * step
                                                + step));
        return candidates.stream()
                .filter(base -> Long.compareUnsigned(base, end) > 0)
                .filter(base -> isFree(bus, port, base))
                .min(Long::compareUnsigned)
                .map(base -> List.of(fix(bus, port, base)))
                .orElse(List.of());
    }

    /** The bus that a port is on, when it can be moved there. */
    private static ElaboratedBus busOf(ElaboratedPlatform platform, TargetRange port) {
        boolean stays = port.held() || !port.via().isEmpty() || port.form().place() != null;
        return stays
                ? null
                : platform.buses().stream()
                        .filter(
                                bus ->
                                        bus.placed().stream()
                                                .anyMatch(other -> other.ref().equals(port.ref())))
                        .findFirst()
                        .orElse(null);
    }

    private static boolean isFree(ElaboratedBus bus, TargetRange port, long base) {
        if (Long.compareUnsigned(base, -port.form().sizeBytes()) > 0) {
            return false;
        }
        AddressRange wanted = AddressRange.of(base, port.form().sizeBytes());
        return bus.window().contains(wanted)
                && bus.placed().stream()
                        .noneMatch(
                                other ->
                                        !other.ref().equals(port.ref())
                                                && other.range().overlaps(wanted));
    }

    private static Fix fix(ElaboratedBus bus, TargetRange port, long base) {
        Address address = new Address(base);
        return new Fix(
                "Move %s to %s".formatted(port.label(), address),
                new Edit.Attach(
                        port.block().name(), port.form().name(), bus.name(), address, null));
    }
}
