package polymetron.platform;

import polymetron.text.Escape;

/** Titles that people give: one line of characters that are shown. */
public final class Titles {
    private Titles() {}

    /** The same title with a space for what is not shown, and none of them at the ends or twice. */
    public static String shown(String title) {
        String shown = Escape.oneLine(title).strip();
        return title.equals(shown) ? title : shown.replaceAll(" {2,}", " ");
    }
}
