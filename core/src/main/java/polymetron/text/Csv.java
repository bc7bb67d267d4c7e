package polymetron.text;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.stream.Collectors;

/** Comma-separated values (RFC 4180), written with line feeds and read with either end of line. */
public final class Csv {
    private Csv() {}

    /** One line; what is null is an empty cell. */
    public static String row(Object... cells) {
        return Arrays.stream(cells)
                .map(cell -> cell == null ? "" : Escape.csv(cell.toString()))
                .collect(Collectors.joining(","));
    }

    /**
     * One record of a table.
     *
     * @param line number of the line that it begins on, from 1
     */
    public record Row(int line, List<String> cells) {
        /** A cell without blanks around it; empty where the record is shorter. */
        public String cell(int at) {
            return at >= 0 && at < cells.size() ? cells.get(at).strip() : "";
        }

        public boolean isBlank() {
            return cells.stream().allMatch(String::isBlank);
        }
    }

    /** All records of a text. Quotes that are never closed end with the text. */
    public static List<Row> read(String text) {
        return new Reader(text.startsWith("\uFEFF") ? text.substring(1) : text).rows();
    }

    private static final class Reader {
        private final String text;
        private final List<Row> rows = new ArrayList<>();
        private final StringBuilder cell = new StringBuilder();
        private List<String> cells = new ArrayList<>();
        private int at;
        private int line = 1;
        private int begun = 1;

        private Reader(String text) {
            this.text = text;
        }

        private List<Row> rows() {
            while (at < text.length()) {
                char sign = text.charAt(at++);
                switch (sign) {
                    case '"' -> quoted();
                    case ',' -> endCell();
                    case '\r', '\n' -> {
                        if (sign == '\r' && at < text.length() && text.charAt(at) == '\n') {
                            at++;
                        }
                        line++;
                        endRow();
                    }
                    default -> cell.append(sign);
                }
            }
            if (!cells.isEmpty() || !cell.isEmpty()) {
                endRow();
            }
            return rows;
        }

        private void quoted() {
            while (at < text.length()) {
                char sign = text.charAt(at++);
                if (sign != '"') {
                    line += sign == '\n' ? 1 : 0;
                    cell.append(sign);
                } else if (at < text.length() && text.charAt(at) == '"') {
                    cell.append('"');
                    at++;
                } else {
                    return;
                }
            }
        }

        private void endCell() {
            cells.add(cell.toString());
            cell.setLength(0);
        }

        private void endRow() {
            endCell();
            rows.add(new Row(begun, List.copyOf(cells)));
            cells = new ArrayList<>();
            begun = line;
        }
    }
}
