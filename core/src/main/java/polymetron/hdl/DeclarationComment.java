package polymetron.hdl;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import org.antlr.v4.runtime.CommonTokenStream;
import org.antlr.v4.runtime.ParserRuleContext;
import org.antlr.v4.runtime.Token;

/** What comments say of a declaration: behind it on its line, or on lines of their own right above it. */
final class DeclarationComment {
    /** Channel of comments in the grammars. */
    private static final int COMMENTS = 2;

    private final CommonTokenStream tokens;
    private final Set<Integer> ends;

    /**
     * @param ends types of the tokens that can stand between a declaration and its comment
     */
    DeclarationComment(CommonTokenStream tokens, Set<Integer> ends) {
        this.tokens = tokens;
        this.ends = ends;
    }

    /** Empty where there is none. */
    String of(ParserRuleContext declared) {
        Token last = declared.getStop();
        int at = last.getTokenIndex() + 1;
        for (; at < tokens.size() && tokens.get(at).getLine() == last.getLine(); at++) {
            if (tokens.get(at).getChannel() == COMMENTS) {
                return plain(tokens.get(at).getText());
            }
            boolean isEnd =
                    tokens.get(at).getChannel() != Token.DEFAULT_CHANNEL
                            || ends.contains(tokens.get(at).getType());
            if (!isEnd) {
                break;
            }
        }
        return above(declared.getStart());
    }

    private String above(Token first) {
        List<String> said = new ArrayList<>();
        int line = first.getLine();
        for (int at = first.getTokenIndex() - 1; at >= 0; at--) {
            Token token = tokens.get(at);
            if (token.getChannel() == Token.DEFAULT_CHANNEL) {
                // A comment behind what is before belongs to that.
                boolean isItsOwn = said.isEmpty() || token.getLine() < line;
                return isItsOwn ? String.join(" ", said) : "";
            }
            if (token.getChannel() == COMMENTS) {
                int ends = token.getLine() + (int) token.getText().lines().count() - 1;
                if (ends < line - 1 || isBehindSomething(at)) {
                    break;
                }
                said.addFirst(plain(token.getText()));
                line = token.getLine();
            }
        }
        return String.join(" ", said);
    }

    private boolean isBehindSomething(int comment) {
        for (int at = comment - 1;
                at >= 0 && tokens.get(at).getLine() == tokens.get(comment).getLine();
                at--) {
            if (tokens.get(at).getChannel() == Token.DEFAULT_CHANNEL) {
                return true;
            }
        }
        return false;
    }

    private static String plain(String comment) {
        return comment.replaceFirst("^(//+|--+|/\\*+)[!<]*", "")
                .replaceFirst("\\*/$", "")
                .replaceAll("\\s+", " ")
                .strip();
    }
}
