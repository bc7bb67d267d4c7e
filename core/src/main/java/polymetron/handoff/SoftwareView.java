package polymetron.handoff;

import java.util.ArrayList;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import polymetron.elaborate.AddressSpace;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.ElaboratedBus;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.InterruptLink;
import polymetron.elaborate.TargetRange;
import polymetron.library.Kind;
import polymetron.program.ProgramPlace;
import polymetron.program.Reading;

/**
 * What software can see of a platform: the data side of its processor, or every target where there is none.
 *
 * @param processor null when the platform has none that is on a bus
 * @param targets what software reaches, in address order
 * @param place where the processor finds its program; null without a processor
 */
public record SoftwareView(
        ElaboratedPlatform platform,
        ElaboratedBlock processor,
        List<TargetRange> targets,
        ProgramPlace place) {

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
        return new SoftwareView(
                platform,
                processor,
                data.get().ranges(),
                ProgramPlace.of(platform, processor).orElseThrow());
    }

    /** Memory that the processor starts in, as it fetches from it; null when there is none. */
    public TargetRange program() {
        return place == null ? null : place.program();
    }

    /** What the processor can execute, as it fetches from it. */
    public List<TargetRange> fetched() {
        return processor == null ? List.of() : ProgramPlace.fetched(platform, processor);
    }

    /**
     * The memories as software addresses them, by ascending address: each once, however many ports of it are in
     * sight. Those that can only be executed are among them.
     */
    public List<TargetRange> memories() {
        Map<ElaboratedBlock, TargetRange> byBlock = new IdentityHashMap<>();
        if (place != null && place.reading() == Reading.SAME_ADDRESS) {
            byBlock.put(place.asData().block(), place.asData());
        } else if (place != null && place.reading() == Reading.HIDDEN) {
            byBlock.put(program().block(), program());
        }
        for (TargetRange target : targets) {
            if (target.form().isMemory()) {
                byBlock.putIfAbsent(target.block(), target);
            }
        }
        for (TargetRange fetched : fetched()) {
            byBlock.putIfAbsent(fetched.block(), fetched);
        }
        return byBlock.values().stream()
                .sorted((one, other) -> one.range().compareTo(other.range()))
                .toList();
    }

    /** All that software can address: the memories, then the devices. */
    public List<TargetRange> seen() {
        List<TargetRange> seen = new ArrayList<>(memories());
        seen.addAll(devices());
        return seen;
    }

    public List<TargetRange> devices() {
        return targets.stream().filter(target -> !target.form().isMemory()).toList();
    }

    /**
     * The memory for variables: where the program starts if that is written and read at the same address, else the
     * largest that is. Where the program cannot be read, only a memory that the bitstream fills can give variables
     * their initial values.
     */
    public Optional<TargetRange> dataMemory() {
        boolean readable = place != null && place.reading() == Reading.SAME_ADDRESS;
        if (readable && place.asData().form().isWritable()) {
            return Optional.of(place.asData());
        }
        return targets.stream()
                .filter(target -> target.form().isMemory() && target.form().isWritable())
                .filter(memory -> readable || memory.isFilledByBitstream())
                .filter(memory -> memories().contains(memory))
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
