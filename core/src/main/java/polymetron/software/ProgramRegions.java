package polymetron.software;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import polymetron.address.AddressRange;
import polymetron.elaborate.TargetRange;

/**
 * Where a program lies in its memories: what other programs and buffers of hardware leave of them.
 *
 * @param code where its instructions go
 * @param data where its variables, heap and stack go; the same as the code's where one memory has both
 */
public record ProgramRegions(Region code, Region data) {
    /** A piece of a memory. */
    public record Region(TargetRange memory, AddressRange range) {}

    /** Why a program cannot be linked. */
    public static final class NoRegions extends RuntimeException {
        private NoRegions(String message) {
            super(message);
        }
    }

    /**
     * @throws NoRegions when the program cannot be linked; the message says why
     */
    public static ProgramRegions of(SoftwareView view) {
        if (view.program() == null) {
            throw new NoRegions("no memory is at the reset vector of a processor");
        }
        if (!view.place().reading().allowsProgram()) {
            throw new NoRegions(
                    "%s does not load from %s at the address where it executes"
                            .formatted(view.name(), view.program().label()));
        }
        Optional<TargetRange> memory = view.dataMemory();
        if (memory.isEmpty()) {
            throw new NoRegions(
                    "%s has no memory that its program can write variables to"
                            .formatted(view.name()));
        }
        long reset = view.harts().getFirst().resetVector();
        AddressRange code =
                free(view, view.program()).stream()
                        .filter(piece -> piece.contains(reset))
                        .findFirst()
                        .orElseThrow(
                                () ->
                                        new NoRegions(
                                                "a buffer of hardware, or another program, lies over the reset vector of %s"
                                                        .formatted(view.name())));
        Region codeRegion = new Region(view.program(), code);
        if (memory.get().block() == view.program().block()
                && memory.get().range().base() == view.program().range().base()) {
            return new ProgramRegions(codeRegion, codeRegion);
        }
        AddressRange data =
                free(view, memory.get()).stream()
                        .max(Comparator.comparingLong(AddressRange::sizeBytes))
                        .orElseThrow(
                                () ->
                                        new NoRegions(
                                                "nothing of %s is left for the variables of %s"
                                                        .formatted(
                                                                memory.get().label(),
                                                                view.name())));
        return new ProgramRegions(codeRegion, new Region(memory.get(), data));
    }

    public boolean isOne() {
        return code.equals(data);
    }

    /** What is left of a program's part of a memory between the buffers of hardware, in address order. */
    public static List<AddressRange> free(SoftwareView view, TargetRange memory) {
        List<AddressRange> pieces = new ArrayList<>();
        AddressRange part = view.part(memory);
        if (part == null) {
            return pieces;
        }
        pieces.add(part);
        for (MemoryBuffer buffer : MemoryBuffer.of(view.platform())) {
            AddressRange taken = buffer.seenIn(memory);
            if (taken != null) {
                List<AddressRange> left = new ArrayList<>();
                pieces.forEach(piece -> cut(piece, taken, left));
                pieces = left;
            }
        }
        return pieces;
    }

    private static void cut(AddressRange piece, AddressRange taken, List<AddressRange> left) {
        if (!piece.overlaps(taken)) {
            left.add(piece);
            return;
        }
        if (Long.compareUnsigned(piece.base(), taken.base()) < 0) {
            left.add(new AddressRange(piece.base(), taken.base() - 1));
        }
        if (Long.compareUnsigned(taken.last(), piece.last()) < 0) {
            left.add(new AddressRange(taken.last() + 1, piece.last()));
        }
    }
}
