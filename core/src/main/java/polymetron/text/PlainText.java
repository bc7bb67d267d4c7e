package polymetron.text;

import java.util.Optional;
import tools.jackson.databind.JsonNode;

/**
 * What a text in a document may hold: every character that shows as what it is, line ends and tabs. Other control characters,
 * halves of characters and marks that turn the direction of what follows would reach generated files and lists, where they
 * make a line look like another one (Unicode Technical Report 36, section 3).
 */
public final class PlainText {
    private PlainText() {}

    /** A text that is not plain. */
    public record Fault(String pointer, int codePoint) {
        /** What is wrong, without where. */
        public String what() {
            return "a text has the character U+%04X, which is not shown as what it is"
                    .formatted(codePoint);
        }
    }

    /** The first fault in the texts and keys of a document. */
    public static Optional<Fault> fault(JsonNode document) {
        return Optional.ofNullable(find("", document));
    }

    private static Fault find(String pointer, JsonNode node) {
        if (node.isString()) {
            return inText(pointer, node.asString());
        }
        int index = 0;
        if (node.isArray()) {
            for (JsonNode each : node) {
                Fault fault = find(pointer + "/" + index++, each);
                if (fault != null) {
                    return fault;
                }
            }
        }
        for (var property : node.properties()) {
            Fault inKey = inText(pointer, property.getKey());
            Fault fault =
                    inKey == null
                            ? find(pointer + "/" + property.getKey(), property.getValue())
                            : inKey;
            if (fault != null) {
                return fault;
            }
        }
        return null;
    }

    private static Fault inText(String pointer, String text) {
        return text.codePoints()
                .filter(each -> !isPlain(each))
                .mapToObj(each -> new Fault(pointer, each))
                .findFirst()
                .orElse(null);
    }

    private static boolean isPlain(int codePoint) {
        return codePoint == '\n'
                || codePoint == '\r'
                || codePoint == '\t'
                || Escape.isShown(codePoint);
    }
}
