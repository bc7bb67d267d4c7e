package polymetron.output.image;

import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import polymetron.address.AddressRange;

/**
 * Reads 32-bit little-endian RISC-V programs. The file is not trusted: every offset is checked against its length
 * before it is used.
 */
public final class ElfReader {
    /** Largest file that is read, in bytes. */
    public static final int LARGEST = 64 * 1024 * 1024;

    private static final int HEADER = 52;
    private static final int PROGRAM_HEADER = 32;
    private static final int SECTION_HEADER = 40;
    private static final int RISC_V = 243;
    private static final int EXECUTABLE = 2;
    private static final int LOADABLE = 1;
    private static final int WITHOUT_CONTENTS = 8;
    private static final int ALLOCATED = 2;
    private static final int COMPRESSED = 0x800;
    private static final int NOTE = 7;
    private static final int SYMBOL_TABLE = 2;
    private static final int SYMBOL = 16;
    private static final int WITHOUT_TYPE = 0;
    private static final int FUNCTION = 2;
    private static final int FIRST_RESERVED_SECTION = 0xFF00;
    private static final long LONGEST_NOTE = 4096;

    private final ByteBuffer file;

    private ElfReader(byte[] bytes) {
        this.file = ByteBuffer.wrap(bytes).order(ByteOrder.LITTLE_ENDIAN);
    }

    /**
     * @throws ProgramFileException when the file is not such a program
     */
    public static ProgramFile read(byte[] bytes) {
        if (bytes.length > LARGEST) {
            throw new ProgramFileException(
                    "the file has %s bytes; at most %s are read".formatted(bytes.length, LARGEST));
        }
        return new ElfReader(bytes).read();
    }

    private ProgramFile read() {
        checkIdentity();
        int type = shortAt(16);
        if (type != EXECUTABLE) {
            throw new ProgramFileException(
                    "the file is of ELF type %s (%s); link it to an executable, type 2"
                            .formatted(type, typeName(type)));
        }
        if (shortAt(18) != RISC_V) {
            throw new ProgramFileException(
                    "the program is for machine %s; the processor is RISC-V, machine 243"
                            .formatted(shortAt(18)));
        }
        List<ProgramFile.Segment> segments = segments();
        return new ProgramFile(
                file.getInt(36),
                wordAt(24),
                segments,
                sections(segments),
                symbols(),
                fingerprint(),
                LineTable.read(
                        contents(".debug_line"),
                        contents(".debug_line_str"),
                        contents(".debug_str")));
    }

    private void checkIdentity() {
        if (file.limit() < 4 || file.getInt(0) != 0x464C457F) {
            throw new ProgramFileException(
                    "this is not an ELF file: it does not begin with 7F 45 4C 46");
        }
        if (file.limit() < 16) {
            throw truncated("the identification", 16);
        }
        if (file.get(4) != 1) {
            throw new ProgramFileException(
                    "the program is %s; the processor runs 32-bit programs (ELFCLASS32)"
                            .formatted(
                                    file.get(4) == 2
                                            ? "64-bit"
                                            : "of unknown class " + file.get(4)));
        }
        if (file.get(5) != 1) {
            throw new ProgramFileException("the program is not little-endian; the processor is");
        }
        if (file.limit() < HEADER) {
            throw truncated("the header", HEADER);
        }
    }

    private static String typeName(int type) {
        return switch (type) {
            case 1 -> "relocatable object";
            case 3 -> "shared object";
            case 4 -> "core dump";
            default -> "unknown";
        };
    }

    private List<ProgramFile.Segment> segments() {
        long table = wordAt(28);
        int count = shortAt(44);
        requireTable("program header", table, count, shortAt(42), PROGRAM_HEADER);
        List<ProgramFile.Segment> segments = new ArrayList<>();
        for (int index = 0; index < count; index++) {
            int at = (int) table + index * shortAt(42);
            if (wordAt(at) == LOADABLE && wordAt(at + 20) != 0) {
                segments.add(segment(at, index));
            }
        }
        if (segments.isEmpty()) {
            throw new ProgramFileException(
                    "the program has no loadable segment: there is nothing to run");
        }
        checkOverlaps(segments);
        return List.copyOf(segments);
    }

    private ProgramFile.Segment segment(int at, int index) {
        long offset = wordAt(at + 4);
        long inFile = wordAt(at + 16);
        long inMemory = wordAt(at + 20);
        if (inFile > inMemory) {
            throw new ProgramFileException(
                    "segment %s has %s bytes in the file but only %s in memory"
                            .formatted(index, inFile, inMemory));
        }
        if (offset + inFile > file.limit()) {
            throw truncated("segment " + index, offset + inFile);
        }
        long virtual = wordAt(at + 8);
        long load = wordAt(at + 12);
        for (long start : new long[] {virtual, load}) {
            if (start + inMemory > 1L << 32) {
                throw new ProgramFileException(
                        "segment %s of %s bytes from 0x%08X passes the end of the 32-bit address space"
                                .formatted(index, inMemory, start));
            }
        }
        byte[] contents = Arrays.copyOfRange(file.array(), (int) offset, (int) (offset + inFile));
        long flags = wordAt(at + 24);
        return new ProgramFile.Segment(
                virtual, load, contents, inMemory, (flags & 2) != 0, (flags & 1) != 0);
    }

    private static void checkOverlaps(List<ProgramFile.Segment> segments) {
        checkOverlaps(
                "loaded",
                segments.stream()
                        .filter(segment -> segment.contents().length > 0)
                        .map(
                                segment ->
                                        AddressRange.of(
                                                segment.loadAddress(), segment.contents().length))
                        .sorted()
                        .toList());
        checkOverlaps(
                "used",
                segments.stream()
                        .map(
                                segment ->
                                        AddressRange.of(
                                                segment.virtualAddress(), segment.memoryBytes()))
                        .sorted()
                        .toList());
    }

    private static void checkOverlaps(String verb, List<AddressRange> sorted) {
        for (int at = 1; at < sorted.size(); at++) {
            if (sorted.get(at - 1).overlaps(sorted.get(at))) {
                throw new ProgramFileException(
                        "two segments are %s over each other at 0x%08X; check the linker script"
                                .formatted(verb, sorted.get(at).base()));
            }
        }
    }

    private List<ProgramFile.Section> sections(List<ProgramFile.Segment> segments) {
        long table = wordAt(32);
        int count = shortAt(48);
        if (table == 0 || count == 0) {
            return List.of();
        }
        requireTable("section header", table, count, shortAt(46), SECTION_HEADER);
        int names = shortAt(50);
        List<ProgramFile.Section> sections = new ArrayList<>();
        for (int index = 0; index < count; index++) {
            int at = (int) table + index * shortAt(46);
            long flags = wordAt(at + 8);
            long size = wordAt(at + 20);
            if ((flags & ALLOCATED) != 0 && size > 0) {
                boolean contents = wordAt(at + 4) != WITHOUT_CONTENTS;
                long address = wordAt(at + 12);
                // Tables of constructors are marked as written, also where a linker script has them
                // among constants.
                boolean constant =
                        segments.stream()
                                .anyMatch(segment -> segment.holds(address) && !segment.writable());
                sections.add(
                        new ProgramFile.Section(
                                name(table, names, count, wordAt(at)),
                                address,
                                size,
                                contents,
                                (flags & 1) != 0 && !constant,
                                (flags & 4) != 0));
            }
        }
        return List.copyOf(sections);
    }

    /** Bytes of the first section of that name; none where there is no such section, or where it is compressed. */
    private byte[] contents(String section) {
        long table = wordAt(32);
        int count = shortAt(48);
        for (int index = 0; table != 0 && index < count; index++) {
            int at = (int) table + index * shortAt(46);
            long offset = wordAt(at + 16);
            long size = wordAt(at + 20);
            boolean isPlain =
                    wordAt(at + 4) != WITHOUT_CONTENTS && (wordAt(at + 8) & COMPRESSED) == 0;
            if (isPlain
                    && offset + size <= file.limit()
                    && name(table, shortAt(50), count, wordAt(at)).equals(section)) {
                return Arrays.copyOfRange(file.array(), (int) offset, (int) (offset + size));
            }
        }
        return new byte[0];
    }

    /** From the first note that says one; a note that is broken says nothing. */
    private String fingerprint() {
        long table = wordAt(32);
        int count = shortAt(48);
        for (int index = 0; table != 0 && index < count; index++) {
            int at = (int) table + index * shortAt(46);
            long offset = wordAt(at + 16);
            long size = wordAt(at + 20);
            if (wordAt(at + 4) == NOTE && size <= LONGEST_NOTE && offset + size <= file.limit()) {
                Optional<String> found =
                        ElfNotes.fingerprint(
                                Arrays.copyOfRange(
                                        file.array(), (int) offset, (int) (offset + size)));
                if (found.isPresent()) {
                    return found.get();
                }
            }
        }
        return null;
    }

    /** Functions, and labels of code, by address; of several at one address the first, functions before labels. */
    private List<ProgramFile.Symbol> symbols() {
        long table = wordAt(32);
        int count = shortAt(48);
        TreeMap<Long, ProgramFile.Symbol> byAddress = new TreeMap<>();
        Set<Long> functions = new HashSet<>();
        for (int index = 0; table != 0 && index < count; index++) {
            int at = (int) table + index * shortAt(46);
            long offset = wordAt(at + 16);
            long size = wordAt(at + 20);
            int strings = (int) Math.min(wordAt(at + 24), count);
            if (wordAt(at + 4) != SYMBOL_TABLE || offset + size > file.limit()) {
                continue;
            }
            for (long entry = offset; entry + SYMBOL <= offset + size; entry += SYMBOL) {
                symbol((int) entry, table, strings, count, byAddress, functions);
            }
        }
        return List.copyOf(byAddress.values());
    }

    private void symbol(
            int entry,
            long table,
            int strings,
            int count,
            TreeMap<Long, ProgramFile.Symbol> byAddress,
            Set<Long> functions) {
        int type = file.get(entry + 12) & 15;
        int section = shortAt(entry + 14);
        boolean defined = section != 0 && section < FIRST_RESERVED_SECTION;
        if (!defined || type != FUNCTION && type != WITHOUT_TYPE || wordAt(entry) == 0) {
            return;
        }
        String name = name(table, strings, count, wordAt(entry));
        long address = wordAt(entry + 4);
        // Names such as $x and .L1 are the tools' own.
        if (name.startsWith("$") || name.startsWith(".") || name.equals("?")) {
            return;
        }
        if (type == FUNCTION && functions.add(address)) {
            byAddress.put(address, new ProgramFile.Symbol(name, address));
        } else {
            byAddress.putIfAbsent(address, new ProgramFile.Symbol(name, address));
        }
    }

    private String name(long table, int names, int count, long offset) {
        if (names == 0 || names >= count) {
            return "?";
        }
        int header = (int) table + names * shortAt(46);
        long start = wordAt(header + 16) + offset;
        long end = Math.min(wordAt(header + 16) + wordAt(header + 20), file.limit());
        if (start >= end) {
            return "?";
        }
        int at = (int) start;
        while (at < end && file.get(at) != 0 && at - start < 128) {
            at++;
        }
        return new String(file.array(), (int) start, at - (int) start, StandardCharsets.UTF_8)
                .replaceAll("\\p{Cntrl}", "?");
    }

    private void requireTable(String what, long table, int count, int entrySize, int smallest) {
        if (count > 0 && entrySize < smallest) {
            throw new ProgramFileException(
                    "the %s table has entries of %s bytes; %s are needed"
                            .formatted(what, entrySize, smallest));
        }
        if (table + (long) count * entrySize > file.limit()) {
            throw truncated("the %s table".formatted(what), table + (long) count * entrySize);
        }
    }

    private ProgramFileException truncated(String what, long needed) {
        return new ProgramFileException(
                "the file ends after %s bytes, but %s needs %s: it was cut off"
                        .formatted(file.limit(), what, needed));
    }

    private int shortAt(int offset) {
        return Short.toUnsignedInt(file.getShort(offset));
    }

    private long wordAt(int offset) {
        return Integer.toUnsignedLong(file.getInt(offset));
    }
}
