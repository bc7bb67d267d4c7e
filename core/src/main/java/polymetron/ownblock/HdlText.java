package polymetron.ownblock;

import java.util.List;
import java.util.regex.Pattern;
import polymetron.hdl.HdlReader;

/** Text in Verilog or SystemVerilog, as places in it. */
final class HdlText {
    private static final Pattern MODULE =
            Pattern.compile("\\b(?:macro)?module\\s+(?:automatic\\s+|static\\s+)?(\\w+)");

    private HdlText() {}

    /**
     * The text with blanks instead of comments, so that everything else stays where it is. A quote in a comment is no string, and
     * two slashes in a string are no comment (IEEE 1800-2017, 5.4 and 5.9).
     */
    static String withoutComments(String text) {
        StringBuilder code = new StringBuilder(text);
        int at = 0;
        while (at < code.length()) {
            if (code.charAt(at) == '"') {
                at = endOfString(code, at);
            } else if (starts(code, at, "//")) {
                while (at < code.length() && code.charAt(at) != '\n') {
                    code.setCharAt(at, ' ');
                    at++;
                }
            } else if (starts(code, at, "/*")) {
                int end = code.indexOf("*/", at + 2);
                int stop = end < 0 ? code.length() : end + 2;
                for (; at < stop; at++) {
                    if (code.charAt(at) != '\n') {
                        code.setCharAt(at, ' ');
                    }
                }
            } else {
                at++;
            }
        }
        return code.toString();
    }

    private static boolean starts(StringBuilder code, int at, String with) {
        return at + with.length() <= code.length()
                && code.charAt(at) == with.charAt(0)
                && code.charAt(at + 1) == with.charAt(1);
    }

    private static int endOfString(StringBuilder code, int start) {
        int at = start + 1;
        while (at < code.length() && code.charAt(at) != '"' && code.charAt(at) != '\n') {
            at += code.charAt(at) == '\\' ? 2 : 1;
        }
        return at + 1;
    }

    /** Names of the modules that a text declares, without reading more of them. */
    static List<String> modules(String file, String text) {
        return HdlReader.isVhdl(file)
                ? VhdlText.entities(text)
                : MODULE.matcher(withoutComments(text))
                        .results()
                        .map(found -> found.group(1))
                        .toList();
    }

    /** The line of a place, from 1. */
    static int line(String text, int at) {
        return 1 + (int) text.chars().limit(at).filter(each -> each == '\n').count();
    }
}
