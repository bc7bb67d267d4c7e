package polymetron.image;

import java.util.List;

/**
 * What matters of an ELF file (System V gABI, chapters 4 and 5; RISC-V psABI).
 *
 * @param entry address of the first instruction
 * @param segments the loadable ones, in the order of the file
 * @param sections those that take up memory, in the order of the file
 * @param fingerprint of the platform that it was linked for, from its note; null when it does not say
 */
public record ElfProgram(
        int flags, long entry, List<Segment> segments, List<Section> sections, String fingerprint) {
    public ElfProgram(int flags, long entry, List<Segment> segments, List<Section> sections) {
        this(flags, entry, segments, sections, null);
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
            boolean executable) {}

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

    /** Whether it uses compressed instructions (RISC-V ELF psABI, flag EF_RISCV_RVC). */
    public boolean isCompressed() {
        return (flags & 1) != 0;
    }
}
