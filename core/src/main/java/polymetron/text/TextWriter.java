package polymetron.text;

import java.util.ArrayList;
import java.util.List;

/**
 * Text that is generated line by line: it knows how deep it is, and that lines end with a line feed and without blanks,
 * whatever machine it runs on. What a value may look like in the language of the text is for {@link Escape} to say.
 */
public final class TextWriter {
    private final StringBuilder out = new StringBuilder();
    private final String step;
    private int depth;

    private TextWriter(String step) {
        this.step = step;
    }

    /**
     * @param step what a line is indented by for each level
     */
    public static TextWriter indentedBy(String step) {
        return new TextWriter(step);
    }

    /**
     * One line at the present depth.
     *
     * @param form text, or with values a pattern of {@link java.util.Formatter}
     */
    public TextWriter line(String form, Object... values) {
        String text = (values.length == 0 ? form : form.formatted(values)).stripTrailing();
        if (!text.isEmpty()) {
            out.append(step.repeat(depth)).append(text);
        }
        out.append('\n');
        return this;
    }

    public TextWriter blank() {
        out.append('\n');
        return this;
    }

    /** A line after which everything is one level deeper. */
    public TextWriter open(String form, Object... values) {
        line(form, values);
        depth++;
        return this;
    }

    /** A line before which everything is one level less deep. */
    public TextWriter close(String form, Object... values) {
        depth--;
        return line(form, values);
    }

    /** A line between two parts, such as {@code else}: one level less deep than both. */
    public TextWriter between(String form, Object... values) {
        depth--;
        return open(form, values);
    }

    /** Several lines, such as a text block, each at the present depth. */
    public TextWriter lines(String text) {
        text.lines().forEach(each -> line(each));
        return this;
    }

    /**
     * Lines whose cells stand below each other.
     *
     * @param rows cells of each line; the last one of a line is followed by nothing
     */
    public TextWriter columns(List<List<String>> rows) {
        List<Integer> widths = new ArrayList<>();
        for (List<String> row : rows) {
            for (int at = 0; at < row.size() - 1; at++) {
                if (at == widths.size()) {
                    widths.add(0);
                }
                widths.set(at, Math.max(widths.get(at), row.get(at).length()));
            }
        }
        for (List<String> row : rows) {
            StringBuilder text = new StringBuilder();
            for (int at = 0; at < row.size(); at++) {
                String cell = row.get(at);
                text.append(cell);
                if (at < row.size() - 1) {
                    text.append(" ".repeat(widths.get(at) - cell.length() + 1));
                }
            }
            line(text.toString());
        }
        return this;
    }

    /** Everything that was written. */
    public String text() {
        return out.toString();
    }
}
