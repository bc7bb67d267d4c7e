package polymetron.ownblock;

import java.util.List;
import java.util.Locale;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** Text in VHDL, as places in it. */
final class VhdlText {
    private static final Pattern PASSED =
            Pattern.compile("--[^\\n]*|/\\*.*?(?:\\*/|$)|\"[^\"\\n]*\"|'.'", Pattern.DOTALL);

    private static final Pattern ENTITY = Pattern.compile("\\bentity\\s+(\\w+)\\s+is\\b");

    private VhdlText() {}

    /**
     * The text in lower case with blanks instead of comments, strings and characters, so that all else stays where it is (IEEE
     * 1076-2008, 15.7 to 15.9).
     */
    static String words(String text) {
        StringBuilder words = new StringBuilder(text.length());
        Matcher passed = PASSED.matcher(text);
        int from = 0;
        while (passed.find()) {
            words.append(text, from, passed.start());
            passed.group().chars().forEach(each -> words.append(each == '\n' ? '\n' : ' '));
            from = passed.end();
        }
        return words.append(text, from, text.length()).toString().toLowerCase(Locale.ROOT);
    }

    /** Names of the entities that a text declares, in lower case. */
    static List<String> entities(String text) {
        return ENTITY.matcher(words(text)).results().map(found -> found.group(1)).toList();
    }
}
