package polymetron.text;

import java.util.stream.Collectors;

/** Values made safe for the language of a generated text: what a user typed can never end what it stands in. */
public final class Escape {
    private Escape() {}

    /** Signs that no line can have, such as control characters and marks of direction, as blanks. */
    public static String oneLine(String text) {
        return text.codePoints()
                .map(each -> isShown(each) ? each : ' ')
                .mapToObj(Character::toString)
                .collect(Collectors.joining());
    }

    /** Whether a character is shown where it stands, and as what it is. */
    public static boolean isShown(int codePoint) {
        return switch (Character.getType(codePoint)) {
            case Character.CONTROL,
                    Character.FORMAT,
                    Character.LINE_SEPARATOR,
                    Character.PARAGRAPH_SEPARATOR,
                    Character.SURROGATE,
                    Character.UNASSIGNED,
                    Character.PRIVATE_USE ->
                    false;
            default -> true;
        };
    }

    /** For a comment or a string of C, of a linker script or of a devicetree: no quote, no backslash, no end of comment. */
    public static String c(String text) {
        return oneLine(text)
                .replace("\\", "/")
                .replace("\"", "'")
                .replace("*/", "* /")
                .replace("/*", "/ *")
                .replace("??", "? ?");
    }

    /** For a cell of a Markdown table. */
    public static String markdown(String text) {
        return oneLine(text).replace("|", "\\|");
    }

    /** For a cell of comma-separated values (RFC 4180): in quotes where it has to be. */
    public static String csv(String text) {
        boolean needsQuotes = text.chars().anyMatch(each -> ",\"\r\n".indexOf(each) >= 0);
        return needsQuotes ? '"' + text.replace("\"", "\"\"") + '"' : text;
    }
}
