package polymetron.finding;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.function.Consumer;
import polymetron.bus.Adapters;
import polymetron.edit.Edit;
import polymetron.elaborate.AddressSpace;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.ElaboratedBus;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.InterfaceRef;
import polymetron.elaborate.SizedInterface;
import polymetron.library.Kind;
import polymetron.placement.StartVectors;

/** An initiator gets to no memory at all. */
final class NoMemoryRule implements Rule {
    @Override
    public String id() {
        return "initiator-without-memory";
    }

    @Override
    public Grade grade() {
        return Grade.ERROR;
    }

    @Override
    public String title() {
        return "Initiator that reaches no memory";
    }

    @Override
    public String explanation() {
        return "A processor cannot fetch its first instruction, or keep a variable, without"
                + " memory.";
    }

    @Override
    public void check(ElaboratedPlatform platform, Consumer<Finding> report) {
        Looks looks = new Looks();
        Set<InterfaceRef> attached = new HashSet<>();
        for (ElaboratedBus bus : platform.buses()) {
            bus.initiators().forEach(initiator -> attached.add(initiator.ref()));
        }
        for (AddressSpace space : platform.spaces()) {
            boolean keepsVariables =
                    space.initiator().block().kind() == Kind.PROCESSOR
                            && !space.initiator().fetches();
            boolean found =
                    space.ranges().stream()
                            .filter(target -> target.form().isMemory())
                            .anyMatch(memory -> !keepsVariables || memory.form().isWritable());
            if (!found) {
                report.accept(
                        finding(
                                space.initiator().ref(),
                                "%s is on %s, where there is no %smemory for it"
                                        .formatted(
                                                space.initiator().label(),
                                                space.bus() == null ? "no bus" : space.bus().name(),
                                                words(space)),
                                space.bus() == null || !looks.take()
                                        ? List.of()
                                        : AddMemoryFix.of(platform, space.bus()).stream()
                                                .toList()));
            }
        }
        platform.spaces().forEach(space -> attached.add(space.initiator().ref()));
        for (ElaboratedBlock block : platform.blocks()) {
            for (SizedInterface form : block.shape().busInterfaces()) {
                InterfaceRef ref = new InterfaceRef(block.name(), form.name());
                boolean passesOn =
                        block.shape().bridge() != null && block.shape().bridge().passesOn(form);
                if (!form.isTarget() && !passesOn && !attached.contains(ref)) {
                    report.accept(
                            finding(
                                    ref,
                                    "%s is on no bus".formatted(ref),
                                    fixes(platform, ref, form, looks)));
                }
            }
        }
    }

    /** What kind of memory is missing. */
    private static String words(AddressSpace space) {
        if (space.initiator().fetches()) {
            return "executable ";
        }
        boolean any = space.ranges().stream().anyMatch(target -> target.form().isMemory());
        return any ? "writable " : "";
    }

    private static List<Fix> fixes(
            ElaboratedPlatform platform, InterfaceRef ref, SizedInterface form, Looks looks) {
        List<Fix> fixes = new ArrayList<>();
        for (ElaboratedBus bus : platform.buses()) {
            boolean isTaken = bus.bus().protocol().hasOneInitiator() && !bus.initiators().isEmpty();
            if (!isTaken && Adapters.canJoin(form.type().protocols(), bus.bus().protocol())) {
                Edit attach = new Edit.Attach(ref.block(), ref.name(), bus.name(), null, null);
                fixes.add(
                        new Fix(
                                "Put %s on %s".formatted(ref, bus.name()),
                                form.onlyFetches() && looks.take()
                                        ? StartVectors.with(platform, attach)
                                        : attach));
            }
        }
        return fixes;
    }
}
