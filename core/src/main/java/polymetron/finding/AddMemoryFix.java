package polymetron.finding;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import polymetron.address.Address;
import polymetron.edit.Edit;
import polymetron.elaborate.BlockShape;
import polymetron.elaborate.ElaboratedBus;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.InterfaceRef;
import polymetron.elaborate.SizedInterface;
import polymetron.library.BlockType;
import polymetron.library.ClockInput;
import polymetron.library.Kind;
import polymetron.library.ResetInput;
import polymetron.placement.Placement;
import polymetron.platform.Names;

/** A fix that puts a new memory, one to run programs from, on a bus. */
final class AddMemoryFix {
    private AddMemoryFix() {}

    static Optional<Fix> of(ElaboratedPlatform platform, ElaboratedBus bus) {
        for (BlockType type : platform.library().types()) {
            if (type.kind() == Kind.MEMORY) {
                Optional<Fix> fix = of(platform, bus, type);
                if (fix.isPresent()) {
                    return fix;
                }
            }
        }
        return Optional.empty();
    }

    private static Optional<Fix> of(
            ElaboratedPlatform platform, ElaboratedBus bus, BlockType type) {
        String name =
                Names.free(
                        type.defaultName(),
                        platform.platform().blocks().stream().map(block -> block.name()).toList());
        for (SizedInterface form : new BlockShape(type, java.util.Map.of()).busInterfaces()) {
            boolean fits =
                    form.isTarget()
                            && form.type().executable()
                            && form.isWritable()
                            && form.type().protocols().contains(bus.bus().protocol());
            Optional<Address> base =
                    fits
                            ? Placement.baseFor(bus, new InterfaceRef(name, form.name()), form)
                            : Optional.empty();
            if (base.isPresent()) {
                String label =
                        "Add %s of %s at %s"
                                .formatted(name, Address.formatSize(form.sizeBytes()), base.get());
                return Optional.of(
                        new Fix(
                                label,
                                new Edit.Several(label, edits(bus, type, name, form, base.get()))));
            }
        }
        return Optional.empty();
    }

    private static List<Edit> edits(
            ElaboratedBus bus, BlockType type, String name, SizedInterface form, Address base) {
        List<Edit> edits = new ArrayList<>();
        edits.add(new Edit.AddBlock(name, type.identity(), null));
        String domain = bus.bus().domain();
        if (domain != null) {
            for (ClockInput clock : type.clocks()) {
                edits.add(new Edit.SetDomain(name, clock.name(), domain));
            }
            for (ResetInput reset : type.resets()) {
                edits.add(new Edit.SetDomain(name, reset.name(), domain));
            }
        }
        edits.add(new Edit.Attach(name, form.name(), bus.name(), base, null));
        return edits;
    }
}
