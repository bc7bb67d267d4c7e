package polymetron.text;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.stream.Collectors;

/** A table in Markdown: whatever is in a cell stays in it. */
public final class MarkdownTable {
    private final List<String> lines = new ArrayList<>();

    private MarkdownTable() {}

    /**
     * @param columns titles; one that begins with {@code >} is of a column of numbers, which is aligned to the right
     */
    public static MarkdownTable of(String... columns) {
        MarkdownTable table = new MarkdownTable();
        table.row(
                Arrays.stream(columns)
                        .map(title -> title.startsWith(">") ? title.substring(1) : title)
                        .toArray());
        table.lines.add(
                Arrays.stream(columns)
                        .map(title -> title.startsWith(">") ? "---:" : "---")
                        .collect(Collectors.joining(" | ", "| ", " |")));
        return table;
    }

    public MarkdownTable row(Object... cells) {
        lines.add(
                Arrays.stream(cells)
                        .map(cell -> Escape.markdown(cell.toString()))
                        .collect(Collectors.joining(" | ", "| ", " |")));
        return this;
    }

    /** Whether it has rows besides its titles. */
    public boolean hasRows() {
        return lines.size() > 2;
    }

    public void write(TextWriter out) {
        lines.forEach(line -> out.line(line));
    }
}
