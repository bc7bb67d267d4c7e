package polymetron.hdl;

import java.util.List;
import java.util.OptionalInt;
import java.util.Set;
import java.util.function.BiConsumer;
import org.antlr.v4.runtime.BaseErrorListener;
import org.antlr.v4.runtime.RecognitionException;
import org.antlr.v4.runtime.Recognizer;
import org.antlr.v4.runtime.Token;

/** What is said of text that is no declaration, of either language. */
final class HdlSyntax extends BaseErrorListener {
    /** Deepest nesting of brackets: more than is written by hand. */
    private static final int DEEPEST = 200;

    static final String TOO_DEEP = "more than %s brackets are open".formatted(DEEPEST);

    private final BiConsumer<Integer, String> say;
    private final String whole;

    /**
     * @param whole what a file can end in the middle of
     * @param say takes a line and what is wrong there
     */
    HdlSyntax(String whole, BiConsumer<Integer, String> say) {
        this.whole = whole;
        this.say = say;
    }

    @Override
    public void syntaxError(
            Recognizer<?, ?> recognizer,
            Object symbol,
            int line,
            int column,
            String message,
            RecognitionException wrong) {
        Token token = (Token) symbol;
        say.accept(
                line,
                token.getType() == Token.EOF
                        ? "the file ends in the middle of a " + whole
                        : "'%s' cannot be read here".formatted(token.getText()));
    }

    /** The line where too many brackets are open; empty where they never are. */
    static OptionalInt tooDeep(List<Token> tokens, Set<Integer> opening, Set<Integer> closing) {
        int depth = 0;
        for (Token token : tokens) {
            depth += opening.contains(token.getType()) ? 1 : 0;
            depth -= closing.contains(token.getType()) ? 1 : 0;
            if (depth > DEEPEST) {
                return OptionalInt.of(token.getLine());
            }
        }
        return OptionalInt.empty();
    }
}
