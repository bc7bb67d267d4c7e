package polymetron.expression;

import java.util.ArrayList;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** Cuts the text of an expression into tokens (IEEE 1800-2017, clause 5). */
final class Lexer {
    enum Kind {
        NUMBER,
        REAL,
        STRING,
        NAME,
        FUNCTION,
        OPERATOR,
        END
    }

    record Token(Kind kind, String text, int at) {}

    private static final Pattern TOKEN =
            Pattern.compile(
                    "(?<real>[0-9][0-9_]*(?:\\.[0-9][0-9_]*(?:[eE][-+]?[0-9][0-9_]*)?|[eE][-+]?[0-9][0-9_]*))|(?<number>(?:[0-9][0-9_]*\\s*)?'[sS]?[bBoOdDhH]\\s*[0-9a-fA-FxXzZ?_]+|[0-9][0-9_]*)|(?<string>\"[^\"\\n"
                        + "]*\")|(?<name>[A-Za-z_][A-Za-z0-9_$]*(?:\\.[A-Za-z_][A-Za-z0-9_$]*)?)|(?<function>\\$[a-z0-9_]+)"
                        + "|(?<operator><<<|>>>|===|!==|\\*\\*|<<|>>|<=|>=|==|!=|&&|\\|\\||~&|~\\||~\\^|\\^~"
                        + "|[-+*/%<>!~&|^?:(){},])");

    private Lexer() {}

    static List<Token> tokens(String source) {
        List<Token> tokens = new ArrayList<>();
        Matcher matcher = TOKEN.matcher(source);
        int at = 0;
        while (at < source.length()) {
            if (Character.isWhitespace(source.charAt(at))) {
                at++;
                continue;
            }
            matcher.region(at, source.length());
            if (!matcher.lookingAt()) {
                throw new ExpressionException(
                        source,
                        at,
                        "'%s' does not belong in an expression".formatted(source.charAt(at)));
            }
            tokens.add(new Token(kind(matcher), matcher.group(), at));
            at = matcher.end();
        }
        tokens.add(new Token(Kind.END, "", source.length()));
        return tokens;
    }

    private static Kind kind(Matcher matcher) {
        if (matcher.group("real") != null) {
            return Kind.REAL;
        }
        if (matcher.group("number") != null) {
            return Kind.NUMBER;
        }
        if (matcher.group("string") != null) {
            return Kind.STRING;
        }
        if (matcher.group("name") != null) {
            return Kind.NAME;
        }
        return matcher.group("function") != null ? Kind.FUNCTION : Kind.OPERATOR;
    }
}
