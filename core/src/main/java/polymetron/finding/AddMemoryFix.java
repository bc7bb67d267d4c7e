package polymetron.finding;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import polymetron.address.Address;
import polymetron.edit.Edit;
import polymetron.elaborate.BlockShape;
import polymetron.elaborate.ElaboratedBus;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.InterfaceRef;
import polymetron.elaborate.SizedInterface;
import polymetron.fit.DeviceFit;
import polymetron.library.BlockType;
import polymetron.library.ClockInput;
import polymetron.library.Kind;
import polymetron.library.ResetInput;
import polymetron.placement.Placement;
import polymetron.placement.StartVectors;
import polymetron.platform.Names;
import polymetron.whatif.WhatIf;

/** A fix that puts a new memory, one to run programs from, on a bus. */
final class AddMemoryFix {
    private static final long SMALLEST = 1024;

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
        SizedInterface usual =
                new BlockShape(type, Map.of())
                        .busInterfaces().stream()
                                .filter(form -> form.isTarget() && form.type().executable())
                                .findFirst()
                                .orElse(null);
        String parameter =
                usual == null
                        ? null
                        : usual.sizeParameter()
                                .filter(each -> type.parameter(each).isPresent())
                                .orElse(null);
        if (parameter == null || !usual.isWritable()) {
            return Optional.empty();
        }
        for (long size = usual.sizeBytes(); size >= SMALLEST; size /= 2) {
            Map<String, String> parameters = Map.of(parameter, Long.toString(size));
            SizedInterface form =
                    new BlockShape(type, parameters).busInterface(usual.name()).orElse(null);
            boolean suits = form != null && form.type().protocols().contains(bus.bus().protocol());
            Optional<Address> base =
                    suits
                            ? Placement.baseFor(bus, new InterfaceRef(name, form.name()), form)
                            : Optional.empty();
            if (base.isPresent()) {
                String label =
                        "Add %s of %s at %s"
                                .formatted(name, Address.formatSize(form.sizeBytes()), base.get());
                Edit edit =
                        new Edit.Several(
                                label,
                                edits(
                                        bus,
                                        type,
                                        name,
                                        size == usual.sizeBytes() ? null : parameters,
                                        form,
                                        base.get()));
                if (fits(platform, edit)) {
                    return Optional.of(new Fix(label, StartVectors.with(platform, edit)));
                }
            }
        }
        return Optional.empty();
    }

    private static boolean fits(ElaboratedPlatform platform, Edit edit) {
        ElaboratedPlatform after = WhatIf.after(platform, edit);
        return DeviceFit.of(after).map(fit -> fit.memory().fits()).orElse(true);
    }

    private static List<Edit> edits(
            ElaboratedBus bus,
            BlockType type,
            String name,
            Map<String, String> parameters,
            SizedInterface form,
            Address base) {
        List<Edit> edits = new ArrayList<>();
        edits.add(new Edit.AddBlock(name, type.identity(), parameters));
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
