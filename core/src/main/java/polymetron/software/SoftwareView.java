package polymetron.software;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;
import polymetron.address.AddressRange;
import polymetron.elaborate.AddressSpace;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.ElaboratedBus;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.InterruptLink;
import polymetron.elaborate.TargetRange;

/**
 * What one program can see of a platform: the data side of its processor, or every target where there is none.
 *
 * @param harts harts that run it, the one that starts it first; empty when the platform has no processor on a bus
 * @param targets what it reaches, in address order
 * @param place where its processor finds it; null without a processor
 * @param parts part of each memory that it shares with other programs, as offsets, by the memory's name
 */
public record SoftwareView(
        ElaboratedPlatform platform,
        List<Hart> harts,
        List<TargetRange> targets,
        ProgramPlace place,
        Map<String, AddressRange> parts) {
    public SoftwareView {
        harts = List.copyOf(harts);
        targets = List.copyOf(targets);
        parts = Map.copyOf(parts);
    }

    /** The first program of a platform. */
    public static SoftwareView of(ElaboratedPlatform platform) {
        List<SoftwareView> programs = Programs.of(platform).all();
        return programs.isEmpty() ? ofEverything(platform) : programs.getFirst();
    }

    /** Every program of a platform; one view of everything where it has no processor. */
    public static List<SoftwareView> all(ElaboratedPlatform platform) {
        List<SoftwareView> programs = Programs.of(platform).all();
        return programs.isEmpty() ? List.of(ofEverything(platform)) : programs;
    }

    private static SoftwareView ofEverything(ElaboratedPlatform platform) {
        List<TargetRange> all = new ArrayList<>();
        for (ElaboratedBus bus : platform.buses()) {
            all.addAll(bus.placed());
        }
        all.sort(Comparator.comparing(TargetRange::range));
        return new SoftwareView(platform, List.of(), List.copyOf(all), null, Map.of());
    }

    SoftwareView withParts(Map<String, AddressRange> other) {
        return new SoftwareView(platform, harts, targets, place, other);
    }

    /** The processor that starts the program; null when there is none. */
    public ElaboratedBlock processor() {
        return harts.isEmpty() ? null : harts.getFirst().block();
    }

    public boolean runsOn(ElaboratedBlock block) {
        return harts.stream().anyMatch(hart -> hart.block() == block);
    }

    /** Name of the program: that of its first processor. */
    public String name() {
        return harts.isEmpty() ? "" : processor().name();
    }

    /** What every hart of the program executes. */
    public InstructionSet instructionSet() {
        return InstructionSet.common(platform, harts);
    }

    /** Memory that the processor starts in, as it fetches from it; null when there is none. */
    public TargetRange program() {
        return place == null ? null : place.program();
    }

    /** What the processor can execute, as it fetches from it. */
    public List<TargetRange> fetched() {
        return harts.isEmpty() ? List.of() : ProgramPlace.fetched(platform, processor());
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
        return byBlock.values().stream().sorted(Comparator.comparing(TargetRange::range)).toList();
    }

    /** Whether the program is read at the addresses where it is executed. */
    public boolean isProgramRead() {
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
     * their initial values. Every processor of the program has to find it at the same address.
     */
    public Optional<TargetRange> dataMemory() {
        if (isProgramRead() && place.asData().form().isWritable() && isCommon(place.asData())) {
            return Optional.of(place.asData());
        }
        return dataMemories().stream()
                .filter(memory -> memory.form().isWritable())
                .filter(memory -> isProgramRead() || memory.isFilledByBitstream())
                .filter(this::isCommon)
                .max(
                        (one, other) ->
                                Long.compareUnsigned(
                                        one.range().sizeBytes(), other.range().sizeBytes()));
    }

    private boolean isCommon(TargetRange memory) {
        return harts.stream()
                .map(Hart::block)
                .distinct()
                .skip(1)
                .allMatch(block -> findsThere(block, memory));
    }

    private boolean findsThere(ElaboratedBlock block, TargetRange memory) {
        return ProgramPlace.dataSide(platform, block)
                .map(AddressSpace::ranges)
                .orElse(List.of())
                .stream()
                .anyMatch(
                        other ->
                                other.isSameMemoryAs(memory)
                                        && other.range().equals(memory.range()));
    }

    /** The part of a memory that is the program's own; null when nothing is left of it. */
    public AddressRange part(TargetRange memory) {
        AddressRange part = parts.get(memory.block().name());
        if (part == null) {
            return memory.range();
        }
        if (part.sizeBytes() < 16) {
            return null;
        }
        return AddressRange.of(memory.range().base() + part.base(), part.sizeBytes())
                .part(memory.range())
                .orElse(null);
    }

    /** The connected interrupts of a device. */
    public List<DeviceInterrupt> interruptsOf(TargetRange device) {
        return DeviceInterrupt.of(platform, device);
    }

    /** The connected interrupt sources of a block. */
    public List<InterruptLink> linksOf(ElaboratedBlock block) {
        return platform.interrupts().stream()
                .filter(link -> link.block() == block && link.isConnected())
                .toList();
    }

    /** The UART that software prints to: the one on the console of the board, else the first that it reaches. */
    public Optional<TargetRange> console() {
        List<TargetRange> uarts =
                devices().stream().filter(device -> Consoles.at(device).isPresent()).toList();
        return uarts.stream()
                .filter(uart -> Consoles.isOnBoardConsole(platform, uart.block()))
                .findFirst()
                .or(() -> uarts.stream().findFirst());
    }
}
