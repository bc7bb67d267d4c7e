package polymetron.output.image;

import polymetron.address.Address;
import polymetron.elaborate.TargetRange;

/**
 * A section of a program against the memory map.
 *
 * @param memory name of the memory that it begins in; null when it begins in none
 * @param overflowBytes bytes that do not fit there; the whole size when it begins in no memory
 * @param problem what is wrong, in words; null when it fits
 */
public record SectionPlace(
        ProgramFile.Section section, String memory, long overflowBytes, String problem) {
    public boolean fits() {
        return problem == null;
    }

    /** Looks for the memory that a section is used in. */
    static SectionPlace of(MemoryWindows windows, ProgramFile.Section section) {
        TargetRange memory = windows.used(section.address(), section.executable()).orElse(null);
        if (memory == null) {
            return new SectionPlace(section, null, section.sizeBytes(), missing(windows, section));
        }
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

    /** Why a section is in no memory: there is none, or the processor uses it for the other purpose only. */
    private static String missing(MemoryWindows windows, ProgramFile.Section section) {
        String purpose =
                section.executable()
                        ? "%s is in %s, which the processor cannot execute from"
                        : "%s is in %s, which the processor executes from, but cannot load from";
        return windows.used(section.address(), !section.executable())
                .map(other -> purpose.formatted(section.name(), other.label()))
                .orElse(
                        "%s begins at %s, where there is no memory"
                                .formatted(section.name(), Address.format(section.address())));
    }
}
