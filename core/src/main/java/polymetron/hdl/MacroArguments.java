package polymetron.hdl;

import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** Arguments of a macro where it is used (IEEE 1800-2017, 22.5.1). */
final class MacroArguments {
    private static final Pattern NAME = Pattern.compile("\\b[A-Za-z_]\\w*\\b");

    private MacroArguments() {}

    /**
     * @param from place behind the name of the macro
     * @param given takes what is between the commas
     * @return the place behind them; negative where they do not end
     */
    static int of(String text, int from, List<String> given) {
        int at = from;
        while (at < text.length() && Character.isWhitespace(text.charAt(at))) {
            at++;
        }
        if (at >= text.length() || text.charAt(at) != '(') {
            return -1;
        }
        int depth = 0;
        int begin = at + 1;
        for (; at < text.length(); at++) {
            char sign = text.charAt(at);
            if (sign == '(' || sign == '[' || sign == '{') {
                depth++;
            } else if (sign == ')' || sign == ']' || sign == '}') {
                depth--;
                if (depth == 0) {
                    given.add(text.substring(begin, at).strip());
                    return at + 1;
                }
            } else if (sign == ',' && depth == 1) {
                given.add(text.substring(begin, at).strip());
                begin = at + 1;
            }
        }
        return -1;
    }

    static String filled(String text, List<String> names, List<String> given) {
        Matcher found = NAME.matcher(text);
        StringBuilder out = new StringBuilder();
        while (found.find()) {
            int at = names.indexOf(found.group());
            String value = at < 0 || at >= given.size() ? found.group() : given.get(at);
            found.appendReplacement(out, Matcher.quoteReplacement(value));
        }
        return found.appendTail(out).toString();
    }
}
