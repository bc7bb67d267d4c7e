package polymetron.output.image;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import polymetron.address.Address;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.TargetRange;
import polymetron.output.Fingerprint;
import polymetron.software.SoftwareView;

/**
 * A program laid out in the memories of a platform.
 *
 * @param sections every section with the memory that it falls into
 * @param problems why the program does not run on the platform; empty when it does
 * @param mismatch why the program may be meant for other hardware, although it fits; null when nothing says so
 * @param chunks loaded bytes by ascending address
 * @param pieces the same bytes in the memories that keep them; empty when there are problems
 * @param memories contents of each memory that the program touches; empty when there are problems
 */
public record ProgramImage(
        SoftwareView view,
        ProgramFile program,
        List<SectionPlace> sections,
        List<String> problems,
        String mismatch,
        List<Chunk> chunks,
        List<LoadedPiece> pieces,
        List<MemoryContents> memories,
        byte fill) {

    /**
     * A program for the processor that starts where it begins; of several such the first.
     *
     * @param fill value of the bytes between what is loaded
     */
    public static ProgramImage of(ElaboratedPlatform platform, ProgramFile program, byte fill) {
        List<SoftwareView> programs = SoftwareView.all(platform);
        return of(
                programs.stream()
                        .filter(view -> startsAt(view, program.entry()))
                        .findFirst()
                        .orElse(programs.getFirst()),
                program,
                fill);
    }

    private static boolean startsAt(SoftwareView view, long entry) {
        return !view.harts().isEmpty() && view.harts().getFirst().resetVector() == entry;
    }

    /**
     * The same for one of several programs of a platform.
     *
     * @param view what the processors see that run it
     * @param fill value of the bytes between what is loaded
     */
    public static ProgramImage of(SoftwareView view, ProgramFile program, byte fill) {
        ElaboratedPlatform platform = view.platform();
        MemoryWindows windows = new MemoryWindows(view);
        List<SectionPlace> sections =
                program.sections().stream()
                        .map(section -> SectionPlace.of(windows, section))
                        .toList();
        List<String> problems = new ArrayList<>();
        for (SectionPlace place : sections) {
            if (!place.fits()) {
                problems.add(place.problem());
            }
        }
        problems.addAll(SegmentChecks.places(windows, program.segments()));
        checkEntry(view, program, problems);
        problems.addAll(BufferChecks.problems(view, program));
        String mismatch = mismatch(platform, program);
        List<ProgramFile.Segment> loaded =
                program.segments().stream()
                        .filter(segment -> segment.contents().length > 0)
                        .sorted(Comparator.comparingLong(ProgramFile.Segment::loadAddress))
                        .toList();
        List<Chunk> chunks =
                loaded.stream()
                        .map(segment -> new Chunk(segment.loadAddress(), segment.contents()))
                        .toList();
        List<LoadedPiece> pieces =
                problems.isEmpty()
                        ? loaded.stream().map(segment -> piece(windows, segment)).toList()
                        : List.of();
        problems.addAll(SegmentChecks.overlaps(pieces));
        if (!problems.isEmpty()) {
            List<String> distinct = problems.stream().distinct().toList();
            return new ProgramImage(
                    view, program, sections, distinct, mismatch, chunks, List.of(), List.of(),
                    fill);
        }
        Map<String, Long> zero = zeroBytes(windows, program);
        List<MemoryContents> contents =
                view.memories().stream()
                        .map(
                                memory ->
                                        MemoryContents.of(
                                                memory,
                                                pieces,
                                                zero.getOrDefault(memory.block().name(), 0L),
                                                fill))
                        .filter(memory -> memory.loadedBytes() + memory.zeroBytes() > 0)
                        .toList();
        return new ProgramImage(
                view, program, sections, List.of(), mismatch, chunks, pieces, contents, fill);
    }

    private static String mismatch(ElaboratedPlatform platform, ProgramFile program) {
        String now = Fingerprint.of(platform);
        return program.fingerprint() == null || program.fingerprint().equals(now)
                ? null
                : "the program was linked for a platform with fingerprint %s, and this one has %s: addresses, registers or interrupts are not all the same"
                        .formatted(program.fingerprint(), now);
    }

    /** Address of the first instruction: that of the file, or where the processor starts when it does not say. */
    public long entry() {
        return program.entry() == ProgramFile.NO_ENTRY && !view.harts().isEmpty()
                ? view.harts().getFirst().resetVector()
                : program.entry();
    }

    public boolean fits() {
        return problems.isEmpty();
    }

    private static LoadedPiece piece(MemoryWindows windows, ProgramFile.Segment segment) {
        TargetRange memory =
                windows.loaded(segment.loadAddress(), segment.executable()).orElseThrow();
        return new LoadedPiece(
                memory, segment.loadAddress() - memory.range().base(), segment.contents());
    }

    private static Map<String, Long> zeroBytes(MemoryWindows windows, ProgramFile program) {
        Map<String, Long> zero = new HashMap<>();
        for (ProgramFile.Segment segment : program.segments()) {
            windows.used(segment.virtualAddress(), segment.executable())
                    .ifPresent(
                            memory ->
                                    zero.merge(
                                            memory.block().name(),
                                            segment.memoryBytes() - segment.contents().length,
                                            Long::sum));
        }
        // What is only cleared need not be in any segment.
        for (ProgramFile.Section section : program.sections()) {
            boolean loaded =
                    program.segments().stream()
                            .anyMatch(segment -> segment.holds(section.address()));
            if (!section.hasContents() && !loaded) {
                windows.used(section.address(), section.executable())
                        .ifPresent(
                                memory ->
                                        zero.merge(
                                                memory.block().name(),
                                                section.sizeBytes(),
                                                Long::sum));
            }
        }
        return zero;
    }

    private static void checkEntry(SoftwareView view, ProgramFile program, List<String> problems) {
        if (view.processor() == null) {
            problems.add("the platform has no processor that could run a program");
            return;
        }
        long reset = view.harts().getFirst().resetVector();
        if (program.entry() != ProgramFile.NO_ENTRY && program.entry() != reset) {
            problems.add(
                    "the program begins at %s, but %s starts at %s; link it with the platform's linker script"
                            .formatted(
                                    Address.format(program.entry()),
                                    view.processor().name(),
                                    Address.format(reset)));
        }
        if (program.isCompressed() && !view.instructionSet().compressed()) {
            problems.add(
                    "the program uses compressed instructions, %s has none; compile with %s"
                            .formatted(
                                    view.processor().name(),
                                    view.instructionSet().compilerOptions()));
        }
        if ((program.flags() & 0x6) != 0) {
            problems.add(
                    "the program passes floating-point values in registers that the processor does"
                            + " not have");
        }
    }
}
