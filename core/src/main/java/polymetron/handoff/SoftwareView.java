package polymetron.handoff;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import polymetron.elaborate.AddressSpace;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.ElaboratedBus;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.InterruptLink;
import polymetron.elaborate.TargetRange;
import polymetron.library.Kind;

/**
 * What software can see of a platform: the data side of its processor, or every target where there is none.
 *
 * @param processor null when the platform has none that is on a bus
 * @param targets what software reaches, in address order
 * @param program memory that the processor starts in; null when there is none
 */
public record SoftwareView(
        ElaboratedPlatform platform,
        ElaboratedBlock processor,
        List<TargetRange> targets,
        TargetRange program) {

    public static SoftwareView of(ElaboratedPlatform platform) {
        Optional<AddressSpace> data =
                platform.spaces().stream()
                        .filter(space -> space.initiator().block().kind() == Kind.PROCESSOR)
                        .filter(space -> !space.initiator().fetches())
                        .findFirst();
        if (data.isEmpty()) {
            List<TargetRange> all = new ArrayList<>();
            for (ElaboratedBus bus : platform.buses()) {
                all.addAll(bus.placed());
            }
            all.sort((one, other) -> one.range().compareTo(other.range()));
            return new SoftwareView(platform, null, List.copyOf(all), null);
        }
        ElaboratedBlock processor = data.get().initiator().block();
        TargetRange program =
                platform.spaces().stream()
                        .filter(
                                space ->
                                        space.initiator().block() == processor
                                                && (space.initiator().fetches()
                                                        || space.initiator().seesInside()))
                        .flatMap(
                                space ->
                                        space.at(processor.shape().number("RESET_VECTOR")).stream())
                        .findFirst()
                        .orElse(null);
        return new SoftwareView(platform, processor, data.get().ranges(), program);
    }

    public List<TargetRange> memories() {
        return targets.stream().filter(target -> target.form().isMemory()).toList();
    }

    public List<TargetRange> devices() {
        return targets.stream().filter(target -> !target.form().isMemory()).toList();
    }

    /** The memory for variables: where the program starts if that is writable, else the largest that is. */
    public Optional<TargetRange> dataMemory() {
        if (program != null && program.form().isWritable()) {
            return Optional.of(program);
        }
        return memories().stream()
                .filter(memory -> memory.form().isWritable())
                .max(
                        (one, other) ->
                                Long.compareUnsigned(
                                        one.form().sizeBytes(), other.form().sizeBytes()));
    }

    /** The connected interrupt sources of a block. */
    public List<InterruptLink> interruptsOf(ElaboratedBlock block) {
        return platform.interrupts().stream()
                .filter(link -> link.block() == block && link.isConnected())
                .toList();
    }

    /** Whether the processor multiplies and divides by itself. */
    public boolean hasMultiplier() {
        return processor != null && InstructionSet.of(processor).multiplies();
    }
}
