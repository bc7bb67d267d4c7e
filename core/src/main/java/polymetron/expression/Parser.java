package polymetron.expression;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;

/** Precedence climbing over the operators of IEEE 1800-2017, table 11-2. */
final class Parser {
    private static final Map<String, Integer> PRECEDENCE =
            Map.ofEntries(
                    Map.entry("||", 1),
                    Map.entry("&&", 2),
                    Map.entry("|", 3),
                    Map.entry("^", 4),
                    Map.entry("~^", 4),
                    Map.entry("^~", 4),
                    Map.entry("&", 5),
                    Map.entry("==", 6),
                    Map.entry("!=", 6),
                    Map.entry("===", 6),
                    Map.entry("!==", 6),
                    Map.entry("<", 7),
                    Map.entry("<=", 7),
                    Map.entry(">", 7),
                    Map.entry(">=", 7),
                    Map.entry("<<", 8),
                    Map.entry(">>", 8),
                    Map.entry("<<<", 8),
                    Map.entry(">>>", 8),
                    Map.entry("+", 9),
                    Map.entry("-", 9),
                    Map.entry("*", 10),
                    Map.entry("/", 10),
                    Map.entry("%", 10),
                    Map.entry("**", 11));
    private static final List<String> PREFIXES =
            List.of("+", "-", "!", "~", "&", "|", "^", "~&", "~|", "~^", "^~");

    /** Ours: a whole number of a list in a text, with commas between, by its place from 0; 0 behind the last one. */
    private static final String ITEM = "$item";

    private static final List<String> FUNCTIONS =
            List.of(
                    "$clog2",
                    "$signed",
                    "$unsigned",
                    "$bits",
                    "$rtoi",
                    "$itor",
                    "$ceil",
                    "$floor",
                    "$sqrt",
                    "$ln",
                    "$log10",
                    "$exp",
                    ITEM);

    private static final int DEEPEST = 200;

    private final String source;
    private final List<Lexer.Token> tokens;
    private int next;
    private int depth;

    Parser(String source) {
        this.source = source;
        this.tokens = Lexer.tokens(source);
    }

    Node parse() {
        Node node = conditional();
        if (peek().kind() != Lexer.Kind.END) {
            throw unexpected("the end");
        }
        return node;
    }

    private Node conditional() {
        if (++depth > DEEPEST) {
            throw new ExpressionException(
                    "the expression is nested more than %s deep".formatted(DEEPEST));
        }
        Node condition = binary(1);
        if (accept("?")) {
            Node then = conditional();
            expect(":");
            condition = new Node.Conditional(condition, then, conditional());
        }
        depth--;
        return condition;
    }

    private Node binary(int lowest) {
        Node left = unary();
        while (peek().kind() == Lexer.Kind.OPERATOR
                && PRECEDENCE.getOrDefault(peek().text(), 0) >= lowest) {
            String operator = take().text();
            left = new Node.Binary(operator, left, binary(PRECEDENCE.get(operator) + 1));
        }
        return left;
    }

    private Node unary() {
        if (peek().kind() == Lexer.Kind.OPERATOR && PREFIXES.contains(peek().text())) {
            if (++depth > DEEPEST) {
                throw new ExpressionException(
                        "the expression is nested more than %s deep".formatted(DEEPEST));
            }
            Node node = new Node.Unary(take().text(), unary());
            depth--;
            return node;
        }
        return primary();
    }

    private Node primary() {
        Lexer.Token token = take();
        return switch (token.kind()) {
            case NUMBER -> new Node.Constant(Literal.number(token.text()));
            case REAL ->
                    new Node.Constant(
                            new Value.Real(Double.parseDouble(token.text().replace("_", ""))));
            case STRING ->
                    new Node.Constant(
                            new Value.Text(token.text().substring(1, token.text().length() - 1)));
            case NAME -> new Node.Name(token.text());
            case FUNCTION -> function(token);
            case OPERATOR -> {
                if (token.text().equals("(")) {
                    Node inner = conditional();
                    expect(")");
                    yield inner;
                }
                if (token.text().equals("{")) {
                    yield braces();
                }
                next--;
                throw unexpected("a value");
            }
            case END -> {
                next--;
                throw unexpected("a value");
            }
        };
    }

    private Node function(Lexer.Token token) {
        if (!FUNCTIONS.contains(token.text())) {
            throw new ExpressionException(
                    "%s is not known here; there are %s"
                            .formatted(token.text(), String.join(", ", FUNCTIONS)));
        }
        expect("(");
        Node argument = conditional();
        if (token.text().equals(ITEM)) {
            expect(",");
            Node place = conditional();
            expect(")");
            return new Node.Item(argument, place);
        }
        expect(")");
        return new Node.Call(token.text(), argument);
    }

    private Node braces() {
        Node first = conditional();
        if (accept("{")) {
            List<Node> repeated = list();
            expect("}");
            return new Node.Replication(first, new Node.Concatenation(repeated));
        }
        List<Node> parts = new ArrayList<>(List.of(first));
        if (accept(",")) {
            parts.addAll(list());
        } else {
            expect("}");
        }
        return new Node.Concatenation(parts);
    }

    private List<Node> list() {
        List<Node> parts = new ArrayList<>();
        do {
            parts.add(conditional());
        } while (accept(","));
        expect("}");
        return parts;
    }

    private Lexer.Token peek() {
        return tokens.get(next);
    }

    private Lexer.Token take() {
        return tokens.get(next++);
    }

    private boolean accept(String operator) {
        if (peek().kind() == Lexer.Kind.OPERATOR && peek().text().equals(operator)) {
            next++;
            return true;
        }
        return false;
    }

    private void expect(String operator) {
        if (!accept(operator)) {
            throw unexpected("'" + operator + "'");
        }
    }

    private ExpressionException unexpected(String wanted) {
        String found = peek().kind() == Lexer.Kind.END ? "the end" : "'" + peek().text() + "'";
        return new ExpressionException(
                source, peek().at(), "expected %s, found %s".formatted(wanted, found));
    }
}
