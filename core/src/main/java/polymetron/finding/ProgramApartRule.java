package polymetron.finding;

import java.util.List;
import java.util.function.Consumer;
import polymetron.address.Address;
import polymetron.address.AddressRange;
import polymetron.edit.Edit;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.ElaboratedBus;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.TargetRange;
import polymetron.library.Capability;
import polymetron.placement.Placement;
import polymetron.platform.Attachment;
import polymetron.software.Harts;
import polymetron.software.ProgramPlace;
import polymetron.software.Programs;
import polymetron.software.SoftwareView;

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
            if (Harts.isProcessor(block)) {
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
                            moveTo(platform, place),
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
                if (Programs.of(platform)
                        .of(place.processor())
                        .flatMap(SoftwareView::dataMemory)
                        .isEmpty()) {
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
        report.accept(
                finding(
                        place.processor().name()
                                + "."
                                + place.processor()
                                        .type()
                                        .provides(Capability.Hart.class)
                                        .getFirst()
                                        .reset(),
                        what,
                        fixes));
    }

    /** Moves the data port of the program's memory to where it is executed, when that is free. */
    private static List<Fix> moveTo(ElaboratedPlatform platform, ProgramPlace place) {
        TargetRange port = place.asData();
        ElaboratedBus bus = busOf(platform, port);
        boolean free =
                bus != null && bus.freeSpaceWithout(port.ref()).isFree(place.program().range());
        return free
                ? List.of(fix(bus, port, new Address(place.program().range().base())))
                : List.of();
    }

    /** Moves what covers the program to the first place behind it. */
    private static List<Fix> moveBehind(ElaboratedPlatform platform, ProgramPlace place) {
        TargetRange port = place.asData();
        ElaboratedBus bus = busOf(platform, port);
        AddressRange program = place.program().range();
        if (bus == null || program.last() == -1L) {
            return List.of();
        }
        Address behind = new Address(program.last() + 1);
        return Placement.baseNear(bus, port.ref(), port.form(), behind)
                .filter(base -> base.compareTo(behind) >= 0)
                .map(base -> List.of(fix(bus, port, base)))
                .orElse(List.of());
    }

    /** The bus that a port is on, when it can be moved there. */
    private static ElaboratedBus busOf(ElaboratedPlatform platform, TargetRange port) {
        boolean stays = port.held() || !port.via().isEmpty() || port.form().place() != null;
        Attachment at = port.block().block().attachments().get(port.form().name());
        return stays || at == null ? null : platform.bus(at.bus()).orElse(null);
    }

    private static Fix fix(ElaboratedBus bus, TargetRange port, Address base) {
        return new Fix(
                "Move %s to %s".formatted(port.label(), base),
                new Edit.Attach(port.block().name(), port.form().name(), bus.name(), base, null));
    }
}
