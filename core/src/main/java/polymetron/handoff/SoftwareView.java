package polymetron.handoff;

import java.util.ArrayList;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;
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
        return platform.spaces().stream()
                .filter(space -> space.initiator().block().kind() == Kind.PROCESSOR)
                .filter(space -> !space.initiator().fetches())
                .findFirst()
                .map(space -> of(platform, space.initiator().block()))
                .orElseGet(() -> ofEverything(platform));
    }

    /** The same of one of several processors, which loads and stores somewhere. */
    public static SoftwareView of(ElaboratedPlatform platform, ElaboratedBlock processor) {
        return new SoftwareView(
                platform,
                processor,
                ProgramPlace.dataSide(platform, processor).orElseThrow().ranges(),
                ProgramPlace.of(platform, processor).orElseThrow());
    }

    private static SoftwareView ofEverything(ElaboratedPlatform platform) {
        List<TargetRange> all = new ArrayList<>();
        for (ElaboratedBus bus : platform.buses()) {
            all.addAll(bus.placed());
        }
        all.sort((one, other) -> one.range().compareTo(other.range()));
        return new SoftwareView(platform, null, List.copyOf(all), null);
    }

    /** Memory that the processor starts in, as it fetches from it; null when there is none. */
    public TargetRange program() {
        return place == null ? null : place.program();
    }

    /** What the processor can execute, as it fetches from it. */
    public List<TargetRange> fetched() {
        return processor == null ? List.of() : ProgramPlace.fetched(platform, processor);
    }

    /** The memories that are loaded from and stored to, by ascending address: each once, whatever its ports. */
    public List<TargetRange> dataMemories() {
        Stream<TargetRange> shared = isProgramRead() ? Stream.of(place.asData()) : Stream.of();
        return once(
                Stream.concat(shared, targets.stream().filter(target -> target.form().isMemory())));
    }

    /** The same, and those that can only be executed. */
    public List<TargetRange> memories() {
        return once(
                Stream.of(dataMemories().stream(), Stream.ofNullable(program()), fetched().stream())
                        .flatMap(each -> each));
    }

    /** Of several ways into one memory the first. */
    private static List<TargetRange> once(Stream<TargetRange> ways) {
        Map<ElaboratedBlock, TargetRange> byBlock = new IdentityHashMap<>();
        ways.forEach(way -> byBlock.putIfAbsent(way.block(), way));
        return byBlock.values().stream()
                .sorted((one, other) -> one.range().compareTo(other.range()))
                .toList();
    }

    private boolean isProgramRead() {
        return place != null && place.reading() == Reading.SAME_ADDRESS;
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
        if (isProgramRead() && place.asData().form().isWritable()) {
            return Optional.of(place.asData());
        }
        return dataMemories().stream()
                .filter(memory -> memory.form().isWritable())
                .filter(memory -> isProgramRead() || memory.isFilledByBitstream())
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
