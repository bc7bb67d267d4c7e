package polymetron.platform;

/** Titles that people give: one line of characters that are shown. */
public final class Titles {
    private Titles() {}

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

    /** The same title with a space for what is not shown, and none of them at the ends or twice. */
    public static String shown(String title) {
        StringBuilder line = new StringBuilder();
        title.codePoints().map(each -> isShown(each) ? each : ' ').forEach(line::appendCodePoint);
        String shown = line.toString().strip();
        return title.equals(shown) ? title : shown.replaceAll(" {2,}", " ");
    }
}
