package polymetron.output.image;

import java.util.List;
import java.util.Optional;

/**
 * What matters of a program file: of an ELF file (System V gABI, chapters 4 and 5; RISC-V psABI), or what other formats
 * have of that.
 *
 * @param entry address of the first instruction; {@link #NO_ENTRY} when the file does not say
 * @param segments the loadable ones, in the order of the file
 * @param sections those that take up memory, in the order of the file
 * @param symbols named places by ascending address; empty when the file has none
 * @param fingerprint of the platform that it was linked for, from its note; null when it does not say
 * @param lines what it was compiled from; empty without debugging information
 */
public record ProgramFile(
        int flags,
        long entry,
        List<Segment> segments,
        List<Section> sections,
        List<Symbol> symbols,
        String fingerprint,
        SourceLines lines) {
    /** For a file that does not say where it begins. */
    public static final long NO_ENTRY = -1;

    public ProgramFile(int flags, long entry, List<Segment> segments, List<Section> sections) {
        this(flags, entry, segments, sections, List.of(), null, SourceLines.NONE);
    }

    /**
     * A loadable segment.
     *
     * @param virtualAddress where the program finds it
     * @param loadAddress where it is kept
     * @param contents bytes from the file; the rest of the segment is zero
     * @param memoryBytes bytes in memory, not fewer than the contents
     */
    public record Segment(
            long virtualAddress,
            long loadAddress,
            byte[] contents,
            long memoryBytes,
            boolean writable,
            boolean executable) {
        /** Whether an address of the running program is in it. */
        public boolean holds(long address) {
            return address >= virtualAddress && address - virtualAddress < memoryBytes;
        }
    }

    /** A named place, such as a function. */
    public record Symbol(String name, long address) {}

    /**
     * A section that takes up memory.
     *
     * @param hasContents whether its bytes are in the file, rather than zero
     */
    public record Section(
            String name,
            long address,
            long sizeBytes,
            boolean hasContents,
            boolean writable,
            boolean executable) {}

    /**
     * An address as a person finds it: the nearest symbol at or below it and the distance, and the source line where it is
     * known, such as {@code send+0x8 at main.c:12}; empty when there is no symbol.
     */
    public Optional<String> place(long address) {
        return symbolAt(address)
                .map(
                        symbol ->
                                lines.at(address)
                                        .map(line -> "%s at %s".formatted(symbol, line))
                                        .orElse(symbol));
    }

    private Optional<String> symbolAt(long address) {
        int low = 0;
        int high = symbols.size();
        while (low < high) {
            int middle = (low + high) >>> 1;
            if (symbols.get(middle).address() <= address) {
                low = middle + 1;
            } else {
                high = middle;
            }
        }
        if (low == 0) {
            return Optional.empty();
        }
        Symbol symbol = symbols.get(low - 1);
        long distance = address - symbol.address();
        boolean inProgram = segments.stream().anyMatch(segment -> segment.holds(address));
        return inProgram
                ? Optional.of(
                        distance == 0
                                ? symbol.name()
                                : "%s+0x%x".formatted(symbol.name(), distance))
                : Optional.empty();
    }

    /** Whether it uses compressed instructions (RISC-V ELF psABI, flag EF_RISCV_RVC). */
    public boolean isCompressed() {
        return (flags & 1) != 0;
    }
}
