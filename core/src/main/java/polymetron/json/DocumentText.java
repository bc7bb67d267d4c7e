package polymetron.json;

/**
 * The text of a document, for messages that say where in it something is wrong.
 *
 * @param name what it is called, such as its file name
 */
public record DocumentText(String name, String text) {
    /**
     * @param place JSON pointer of what is wrong
     * @param why what is wrong, and what would be right
     */
    public DocumentException wrong(String place, String why) {
        return new DocumentException(
                "%s, line %s, at %s: %s".formatted(name, line(place), place, why), place);
    }

    /** The line of a place, or of the nearest part around it that the text has. */
    private int line(String place) {
        int line = Documents.lineOf(text, place);
        int end = place.lastIndexOf('/');
        return line > 1 || end <= 0 ? line : line(place.substring(0, end));
    }
}
