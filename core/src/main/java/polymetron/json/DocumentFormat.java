package polymetron.json;

import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import polymetron.text.PlainText;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ObjectNode;

/**
 * A kind of document with its versions. Its key {@code format} says the version that a document was written in; one of an
 * earlier version is checked against the schema that it had then and taken over step by step, each step to the next version.
 * Nothing is ever written in an earlier version.
 *
 * @param <T> what a document is read as
 */
public final class DocumentFormat<T> {
    private static final Pattern VERSION = Pattern.compile("(.+)/(\\d{1,6})");

    /** Takes a document over to the next version, but for its {@code format}. */
    @FunctionalInterface
    public interface Step {
        /**
         * @param text for messages where something cannot be converted
         * @param document is changed
         * @throws DocumentException where something is missing that the next version needs
         */
        void migrate(DocumentText text, ObjectNode document);
    }

    /**
     * An earlier version.
     *
     * @param schema what a document of that version had to be
     * @param step leads to the next version
     */
    public record Earlier(String format, SchemaFile schema, Step step) {}

    private final String current;
    private final SchemaFile schema;
    private final Class<T> form;
    private final List<Earlier> earlier;

    /**
     * @param current what {@code format} is now
     * @param schema null where what is read says enough itself
     * @param earlier versions before it, oldest first
     */
    public DocumentFormat(String current, SchemaFile schema, Class<T> form, Earlier... earlier) {
        this.current = current;
        this.schema = schema;
        this.form = form;
        this.earlier = List.of(earlier);
    }

    /** The JSON Schema of the current version. */
    public String schemaText() {
        return schema.text();
    }

    /**
     * @param name what the document is called in messages, such as its file name
     * @throws DocumentException when it is no such document; the message names line and key
     */
    public T read(String name, String text) {
        if (text.length() <= SchemaFile.LONGEST) {
            DocumentText document = new DocumentText(name, text);
            PlainText.fault(Documents.tree(name, text))
                    .ifPresent(
                            fault -> {
                                throw document.wrong(fault.pointer(), fault.what());
                            });
        }
        return readKept(name, text);
    }

    /** The same for one that was taken in before: what was kept can be opened, whatever characters it has. */
    public T readKept(String name, String text) {
        String format = text.length() > SchemaFile.LONGEST ? null : Documents.formatOf(text);
        if (format == null || format.equals(current)) {
            return current(name, text);
        }
        for (int at = 0; at < earlier.size(); at++) {
            if (earlier.get(at).format().equals(format)) {
                return current(name, takenOver(new DocumentText(name, text), at));
            }
        }
        throw new DocumentText(name, text).wrong("/format", unknown(format));
    }

    private T current(String name, String text) {
        return schema == null ? Documents.read(name, text, form) : schema.read(name, text, form);
    }

    private String takenOver(DocumentText text, int first) {
        ObjectNode document =
                (ObjectNode)
                        earlier.get(first).schema().read(text.name(), text.text(), JsonNode.class);
        for (int at = first; at < earlier.size(); at++) {
            earlier.get(at).step().migrate(text, document);
            boolean isLast = at == earlier.size() - 1;
            document.put("format", isLast ? current : earlier.get(at + 1).format());
        }
        return Documents.write(document);
    }

    private String unknown(String format) {
        Matcher mine = VERSION.matcher(current);
        Matcher its = VERSION.matcher(format);
        boolean isNewer =
                mine.matches()
                        && its.matches()
                        && its.group(1).equals(mine.group(1))
                        && Integer.parseInt(its.group(2)) > Integer.parseInt(mine.group(2));
        String known =
                Stream.concat(earlier.stream().map(Earlier::format), Stream.of(current))
                        .collect(Collectors.joining(", "));
        return isNewer
                ? "it is of format %s, written by a newer Polymetron; this one reads %s"
                        .formatted(format, known)
                : "its format is '%s'; what is read here is %s".formatted(format, known);
    }
}
