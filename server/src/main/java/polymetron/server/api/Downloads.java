package polymetron.server.api;

import org.springframework.http.ContentDisposition;
import polymetron.text.Escape;

/** How files leave the server. */
public final class Downloads {
    private static final int LONGEST_NAME = 100;

    private Downloads() {}

    /** The last part of a file's name as it may be shown: at most 100 characters, none of them hidden; may be empty. */
    public static String shownName(String name) {
        String last = name.substring(Math.max(name.lastIndexOf('/'), name.lastIndexOf('\\')) + 1);
        String shown = Escape.oneLine(last).strip();
        // By characters: half of one cannot be stored.
        return shown.codePointCount(0, shown.length()) <= LONGEST_NAME
                ? shown
                : shown.substring(0, shown.offsetByCodePoints(0, LONGEST_NAME)).strip();
    }

    /** The header value that makes a browser save an answer under a name. */
    public static String attachment(String name) {
        return ContentDisposition.attachment().filename(name).build().toString();
    }
}
