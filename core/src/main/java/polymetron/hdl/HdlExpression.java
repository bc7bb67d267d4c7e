package polymetron.hdl;

import org.antlr.v4.runtime.ParserRuleContext;
import org.antlr.v4.runtime.misc.Interval;

/** Text of an expression as it stands in the source, on one line. */
final class HdlExpression {
    private HdlExpression() {}

    static String of(ParserRuleContext rule) {
        int first = rule.getStart().getStartIndex();
        int last = rule.getStop().getStopIndex();
        String text = rule.getStart().getInputStream().getText(Interval.of(first, last));
        return CommentCursor.withoutComment(text.replace('\n', ' '))
                .strip()
                .replaceAll("\\s+", " ");
    }

    /** The two sides of a range at the colon that is its own; one side where there is none. */
    static String[] sides(String inside) {
        int depth = 0;
        int asked = 0;
        for (int at = 0; at < inside.length(); at++) {
            switch (inside.charAt(at)) {
                case '(', '[', '{' -> depth++;
                case ')', ']', '}' -> depth--;
                case '?' -> asked += depth == 0 ? 1 : 0;
                case ':' -> {
                    boolean isScope =
                            inside.startsWith("::", at) || at > 0 && inside.charAt(at - 1) == ':';
                    if (depth == 0 && !isScope) {
                        if (asked == 0) {
                            return new String[] {
                                inside.substring(0, at).strip(), inside.substring(at + 1).strip()
                            };
                        }
                        asked--;
                    }
                }
                default -> {}
            }
        }
        return new String[] {inside.strip()};
    }

    /** Bits between two numbers, the lower one of which is 0 most of the time. */
    static String width(String high, String low) {
        if (low.equals("0")) {
            if (high.matches("\\d+")) {
                return Long.toString(Long.parseLong(high) + 1);
            }
            if (high.matches("\\w+ ?- ?1")) {
                return high.substring(0, high.indexOf('-')).strip();
            }
            return "(%s) + 1".formatted(high);
        }
        // Counted in either direction.
        return "((%1$s) >= (%2$s) ? (%1$s) - (%2$s) : (%2$s) - (%1$s)) + 1".formatted(high, low);
    }
}
