package polymetron.output.image;

import java.util.List;
import java.util.Optional;

/**
 * Which line of which source file instructions were made from, as the compiler's line table says it (DWARF 5, 6.2).
 *
 * @param sequences stretches of instructions in the order of the file; those that the linker left out may overlap others
 */
public record SourceLines(List<Sequence> sequences) {
    /** For a program that does not say. */
    public static final SourceLines NONE = new SourceLines(List.of());

    public SourceLines {
        sequences = List.copyOf(sequences);
    }

    /**
     * Instructions that follow each other.
     *
     * @param end address behind the last one
     * @param rows by ascending address, at least one
     */
    record Sequence(long end, List<Row> rows) {
        private long start() {
            return rows.getFirst().address();
        }

        private boolean holds(long address) {
            return address >= start() && address < end;
        }

        /** Of several rows at one address the last one counts. */
        private Row at(long address) {
            int low = 0;
            int high = rows.size();
            while (low < high) {
                int middle = (low + high) >>> 1;
                if (rows.get(middle).address() <= address) {
                    low = middle + 1;
                } else {
                    high = middle;
                }
            }
            return rows.get(low - 1);
        }
    }

    /**
     * Instructions from an address on come from a line.
     *
     * @param line from 1; 0 for instructions of no line
     */
    record Row(long address, String file, int line) {}

    /** File and line of the instruction at an address, such as {@code main.c:12}; empty where it is not known. */
    public Optional<String> at(long address) {
        Sequence found = null;
        for (Sequence each : sequences) {
            // What the linker left out stays in the table, at address 0.
            if (each.holds(address) && (found == null || each.start() > found.start())) {
                found = each;
            }
        }
        return Optional.ofNullable(found)
                .map(each -> each.at(address))
                .filter(row -> row.line() > 0)
                .map(row -> "%s:%s".formatted(row.file(), row.line()));
    }
}
