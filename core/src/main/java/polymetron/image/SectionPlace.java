package polymetron.image;

/**
 * A section of a program against the memory map.
 *
 * @param memory name of the memory that it begins in; null when it begins in none
 * @param overflowBytes bytes that do not fit there; the whole size when it begins in no memory
 * @param problem what is wrong, in words; null when it fits
 */
public record SectionPlace(
        ElfProgram.Section section, String memory, long overflowBytes, String problem) {
    public boolean fits() {
        return problem == null;
    }
}
