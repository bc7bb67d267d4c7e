package polymetron.image;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import polymetron.address.Address;
import polymetron.address.AddressRange;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.TargetRange;
import polymetron.handoff.InstructionSet;
import polymetron.handoff.SoftwareView;

/**
 * A program laid out in the memories of a platform.
 *
 * @param sections every section with the memory that it falls into
 * @param problems why the program does not run on the platform; empty when it does
 * @param chunks loaded bytes by ascending address
 * @param memories contents of each memory that the program touches; empty when there are problems
 */
public record ProgramImage(
        ElfProgram program,
        List<SectionPlace> sections,
        List<String> problems,
        List<Chunk> chunks,
        List<MemoryContents> memories,
        byte fill) {

    /**
     * @param fill value of the bytes between what is loaded
     */
    public static ProgramImage of(ElaboratedPlatform platform, ElfProgram program, byte fill) {
        SoftwareView view = SoftwareView.of(platform);
        List<TargetRange> memories = view.memories();
        List<SectionPlace> sections =
                program.sections().stream().map(section -> place(memories, section)).toList();
        List<String> problems = new ArrayList<>();
        for (SectionPlace place : sections) {
            if (!place.fits()) {
                problems.add(place.problem());
            }
        }
        for (ElfProgram.Segment segment : program.segments()) {
            checkSegment(memories, segment, problems);
        }
        checkEntry(view, program, problems);
        List<Chunk> chunks =
                program.segments().stream()
                        .filter(segment -> segment.contents().length > 0)
                        .map(segment -> new Chunk(segment.loadAddress(), segment.contents()))
                        .sorted(Comparator.comparingLong(Chunk::address))
                        .toList();
        List<String> distinct = problems.stream().distinct().toList();
        List<MemoryContents> contents =
                distinct.isEmpty()
                        ? memories.stream()
                                .map(memory -> contents(memory, chunks, program, fill))
                                .filter(memory -> memory.loadedBytes() + memory.zeroBytes() > 0)
                                .toList()
                        : List.of();
        return new ProgramImage(program, sections, distinct, chunks, contents, fill);
    }

    public boolean fits() {
        return problems.isEmpty();
    }

    private static SectionPlace place(List<TargetRange> memories, ElfProgram.Section section) {
        for (TargetRange memory : memories) {
            if (memory.range().contains(section.address())) {
                long room = memory.range().last() - section.address() + 1;
                long over = Math.max(0, section.sizeBytes() - room);
                String problem = null;
                if (over > 0) {
                    problem =
                            "%s (%s from %s) passes the end of %s by %s"
                                    .formatted(
                                            section.name(),
                                            Address.formatSize(section.sizeBytes()),
                                            Address.format(section.address()),
                                            memory.label(),
                                            Address.formatSize(over));
                } else if (section.writable() && !memory.form().isWritable()) {
                    problem =
                            "%s is written to, but %s is read-only"
                                    .formatted(section.name(), memory.label());
                }
                return new SectionPlace(section, memory.label(), over, problem);
            }
        }
        return new SectionPlace(
                section,
                null,
                section.sizeBytes(),
                "%s begins at %s, where there is no memory"
                        .formatted(section.name(), Address.format(section.address())));
    }

    private static void checkSegment(
            List<TargetRange> memories, ElfProgram.Segment segment, List<String> problems) {
        check(
                memories,
                segment.loadAddress(),
                Math.max(segment.contents().length, 1),
                "loaded",
                problems);
        check(memories, segment.virtualAddress(), segment.memoryBytes(), "used", problems);
    }

    private static void check(
            List<TargetRange> memories,
            long address,
            long size,
            String verb,
            List<String> problems) {
        AddressRange range = AddressRange.of(address, size);
        if (memories.stream().anyMatch(memory -> memory.range().contains(range))) {
            return;
        }
        String over =
                memories.stream()
                        .filter(memory -> memory.range().contains(address))
                        .map(
                                memory ->
                                        "it passes the end of %s by %s"
                                                .formatted(
                                                        memory.label(),
                                                        Address.formatSize(
                                                                range.last()
                                                                        - memory.range().last())))
                        .findFirst()
                        .orElse("no memory begins there");
        problems.add(
                "a segment of %s is %s at %s, but %s"
                        .formatted(Address.formatSize(size), verb, Address.format(address), over));
    }

    private static void checkEntry(SoftwareView view, ElfProgram program, List<String> problems) {
        if (view.processor() == null) {
            problems.add("the platform has no processor that could run a program");
            return;
        }
        long reset = view.processor().shape().number("RESET_VECTOR");
        if (program.entry() != reset) {
            problems.add(
                    "the program begins at %s, but %s starts at %s; link it with the platform's linker script"
                            .formatted(
                                    Address.format(program.entry()),
                                    view.processor().name(),
                                    Address.format(reset)));
        }
        if (program.isCompressed() && !InstructionSet.of(view.processor()).compressed()) {
            problems.add(
                    "the program uses compressed instructions, %s has none; compile with -march=%s"
                            .formatted(
                                    view.processor().name(),
                                    InstructionSet.of(view.processor()).name()));
        }
        if ((program.flags() & 0x6) != 0) {
            problems.add(
                    "the program passes floating-point values in registers that the processor does"
                            + " not have");
        }
    }

    private static MemoryContents contents(
            TargetRange memory, List<Chunk> chunks, ElfProgram program, byte fill) {
        long base = memory.range().base();
        List<Chunk> inside =
                chunks.stream().filter(chunk -> memory.range().contains(chunk.address())).toList();
        long end = inside.stream().mapToLong(Chunk::end).max().orElse(base);
        long loaded = inside.stream().mapToLong(chunk -> chunk.bytes().length).sum();
        long zero =
                program.segments().stream()
                        .filter(segment -> memory.range().contains(segment.virtualAddress()))
                        .mapToLong(segment -> segment.memoryBytes() - segment.contents().length)
                        .sum();
        return new MemoryContents(memory, joined(inside, base, end, fill), loaded, zero);
    }

    private static byte[] joined(List<Chunk> chunks, long base, long end, byte fill) {
        if (chunks.size() == 1 && chunks.getFirst().address() == base) {
            // The usual program: one piece from the base on, as it is.
            return chunks.getFirst().bytes();
        }
        byte[] bytes = new byte[(int) (end - base)];
        Arrays.fill(bytes, fill);
        for (Chunk chunk : chunks) {
            System.arraycopy(
                    chunk.bytes(), 0, bytes, (int) (chunk.address() - base), chunk.bytes().length);
        }
        return bytes;
    }
}
