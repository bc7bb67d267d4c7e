package polymetron.output.image;

import java.nio.BufferUnderflowException;
import java.util.ArrayList;
import java.util.List;

/**
 * Reads line tables of versions 2 to 5 (DWARF 5, 6.2; section {@code .debug_line}). They only help a person, so one that is broken
 * or too long refuses no program: what comes before the broken place counts.
 */
final class LineTable {
    /** More rows than these are not kept. */
    private static final int MOST_ROWS = 1 << 20;

    private static final long LONG_FORMAT = 0xFFFF_FFF0L;

    private static final int PATH = 1;

    private final DwarfBytes lineTexts;
    private final DwarfBytes texts;
    private final List<SourceLines.Sequence> sequences = new ArrayList<>();
    private int kept;

    private LineTable(byte[] lineTexts, byte[] texts) {
        this.lineTexts = new DwarfBytes(lineTexts);
        this.texts = new DwarfBytes(texts);
    }

    /**
     * @param table contents of {@code .debug_line}
     * @param lineTexts of {@code .debug_line_str}
     * @param texts of {@code .debug_str}
     */
    static SourceLines read(byte[] table, byte[] lineTexts, byte[] texts) {
        LineTable reader = new LineTable(lineTexts, texts);
        try {
            DwarfBytes all = new DwarfBytes(table);
            while (all.hasMore()) {
                long length = all.four();
                if (length >= LONG_FORMAT) {
                    break;
                }
                reader.unit(all.part(length));
            }
        } catch (BufferUnderflowException
                | IndexOutOfBoundsException
                | IllegalArgumentException
                | ArithmeticException broken) {
            // What was read before it counts.
        }
        return new SourceLines(reader.sequences);
    }

    private void unit(DwarfBytes in) {
        int version = in.two();
        if (version < 2 || version > 5) {
            return;
        }
        if (version == 5) {
            in.skip(2);
        }
        long headerLength = in.four();
        long program = in.at() + headerLength;
        LineProgram.Header header =
                new LineProgram.Header(
                        in.one(), version >= 4 ? in.one() : 1, in.one(), in.signedByte(), in.one());
        int[] operands = new int[in.one()];
        for (int opcode = 1; opcode < operands.length; opcode++) {
            operands[opcode] = in.one();
        }
        List<String> files = version == 5 ? described(in) : listed(in);
        in.goTo(program);
        LineProgram run = new LineProgram(in, header, operands, files);
        while (in.hasMore() && kept < MOST_ROWS) {
            run.sequence(MOST_ROWS - kept)
                    .ifPresent(
                            sequence -> {
                                sequences.add(sequence);
                                kept += sequence.rows().size();
                            });
        }
    }

    /** Names of files up to version 4, the first one at number 1; folders do not count. */
    private static List<String> listed(DwarfBytes in) {
        while (!in.text().isEmpty()) {
            // A folder.
        }
        List<String> files = new ArrayList<>(List.of("?"));
        for (String name = in.text(); !name.isEmpty(); name = in.text()) {
            files.add(withoutFolder(name));
            in.unsigned();
            in.unsigned();
            in.unsigned();
        }
        return files;
    }

    /** Names of files of version 5, the first one at number 0. */
    private List<String> described(DwarfBytes in) {
        entries(in);
        return entries(in);
    }

    private List<String> entries(DwarfBytes in) {
        int parts = in.one();
        long[] contents = new long[parts];
        long[] forms = new long[parts];
        for (int part = 0; part < parts; part++) {
            contents[part] = in.unsigned();
            forms[part] = in.unsigned();
        }
        List<String> names = new ArrayList<>();
        long count = parts == 0 ? 0 : in.unsigned();
        for (long entry = 0; entry < count && in.hasMore(); entry++) {
            String name = "?";
            for (int part = 0; part < parts; part++) {
                String value = value(in, forms[part]);
                name = contents[part] == PATH && value != null ? withoutFolder(value) : name;
            }
            names.add(name);
        }
        return names;
    }

    /** A value by its form (DWARF 5, 7.5.6); null for what is no text. */
    private String value(DwarfBytes in, long form) {
        switch ((int) form) {
            case 0x08 -> {
                return in.text();
            }
            case 0x1F -> {
                return lineTexts.textAt(in.four());
            }
            case 0x0E -> {
                return texts.textAt(in.four());
            }
            case 0x0B -> in.skip(1);
            case 0x05 -> in.skip(2);
            case 0x06 -> in.skip(4);
            case 0x07 -> in.skip(8);
            case 0x1E -> in.skip(16);
            case 0x0F -> in.unsigned();
            case 0x09 -> in.skip(in.unsigned());
            default -> throw new IllegalArgumentException("form " + form);
        }
        return null;
    }

    private static String withoutFolder(String path) {
        return path.substring(Math.max(path.lastIndexOf('/'), path.lastIndexOf('\\')) + 1);
    }
}
