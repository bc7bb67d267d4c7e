package polymetron.output.image;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import polymetron.address.Address;
import polymetron.address.AddressRange;
import polymetron.elaborate.TargetRange;

/** Whether the segments of a program have memory, and bytes of their own in it. */
final class SegmentChecks {
    private static final Comparator<LoadedPiece> BY_PLACE =
            Comparator.comparing((LoadedPiece piece) -> piece.memory().block().name())
                    .thenComparingLong(LoadedPiece::offset);

    private SegmentChecks() {}

    /** Why segments are not all in memory, where they are loaded and where they are used. */
    static List<String> places(MemoryWindows windows, List<ProgramFile.Segment> segments) {
        List<String> problems = new ArrayList<>();
        for (ProgramFile.Segment segment : segments) {
            place(windows, segment, problems);
        }
        return problems;
    }

    private static void place(
            MemoryWindows windows, ProgramFile.Segment segment, List<String> problems) {
        AddressRange load =
                AddressRange.of(segment.loadAddress(), Math.max(segment.contents().length, 1));
        check(windows.loaded(load.base(), segment.executable()), load, "loaded", problems);
        AddressRange use = AddressRange.of(segment.virtualAddress(), segment.memoryBytes());
        check(windows.used(use.base(), segment.executable()), use, "used", problems);
    }

    private static void check(
            Optional<TargetRange> found, AddressRange range, String verb, List<String> problems) {
        if (found.isPresent() && found.get().range().contains(range)) {
            return;
        }
        String over =
                found.map(
                                memory ->
                                        "it passes the end of %s by %s"
                                                .formatted(
                                                        memory.label(),
                                                        Address.formatSize(
                                                                range.last()
                                                                        - memory.range().last())))
                        .orElse("no memory for it begins there");
        problems.add(
                "a segment of %s is %s at %s, but %s"
                        .formatted(
                                Address.formatSize(range.last() - range.base() + 1),
                                verb,
                                Address.format(range.base()),
                                over));
    }

    /** Two ways into one memory can lead two segments to the same bytes. */
    static List<String> overlaps(List<LoadedPiece> pieces) {
        List<String> problems = new ArrayList<>();
        LoadedPiece before = null;
        for (LoadedPiece piece : pieces.stream().sorted(BY_PLACE).toList()) {
            boolean sameMemory = before != null && piece.memory().isSameMemoryAs(before.memory());
            if (sameMemory && piece.offset() < before.end()) {
                problems.add(
                        "two segments are loaded over each other in %s, through %s and %s"
                                .formatted(
                                        piece.memory().block().name(),
                                        before.memory().label(),
                                        piece.memory().label()));
            }
            // A long one may reach over several that follow.
            before = sameMemory && before.end() > piece.end() ? before : piece;
        }
        return problems;
    }
}
