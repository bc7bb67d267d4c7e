package polymetron.expression;

import com.fasterxml.jackson.annotation.JsonCreator;
import com.fasterxml.jackson.annotation.JsonValue;
import java.util.Collections;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.SortedSet;
import java.util.TreeSet;
import java.util.function.Function;

/**
 * A constant expression of IEEE 1800-2017, clause 11, as IEEE 1685-2022 uses it for parameters: integers of any
 * width with the sizing and signing rules of 11.6 to 11.8, reals, strings, {@code ?:}, concatenation, replication,
 * reductions and {@code $clog2}. There are no unknown bits: what the standard evaluates to {@code x} (a division
 * by zero) is an {@link ExpressionException} here, because nothing can be built from it.
 */
public final class Expression {
    private static final int LONGEST = 2_000;

    private final String source;
    private final Node root;
    private final SortedSet<String> names;

    private Expression(String source, Node root) {
        this.source = source;
        this.root = root;
        SortedSet<String> found = new TreeSet<>();
        root.collectNames(found);
        this.names = Collections.unmodifiableSortedSet(found);
    }

    /**
     * @throws ExpressionException when the text is no expression; the message names the position
     */
    @JsonCreator(mode = JsonCreator.Mode.DELEGATING)
    public static Expression parse(String source) {
        if (source.length() > LONGEST) {
            throw new ExpressionException(
                    "an expression has at most %s characters, this one %s"
                            .formatted(LONGEST, source.length()));
        }
        return new Expression(source, new Parser(source).parse());
    }

    /** The expression that is a plain number. */
    @JsonCreator(mode = JsonCreator.Mode.DELEGATING)
    public static Expression of(long number) {
        return parse(Long.toString(number));
    }

    /** The parameters that the expression refers to. */
    public SortedSet<String> names() {
        return names;
    }

    /** The parameter that the expression is, when it is nothing but one. */
    public Optional<String> parameter() {
        return names.contains(source) ? Optional.of(source) : Optional.empty();
    }

    /**
     * @param scope gives the value of a parameter, or null when there is none of that name
     * @throws ExpressionException when a name is unknown or a result undefined
     */
    public Value evaluate(Function<String, Value> scope) {
        return root.evaluate(scope);
    }

    public Value evaluate(Map<String, Value> scope) {
        return evaluate(scope::get);
    }

    @Override
    public boolean equals(Object other) {
        return other instanceof Expression that && source.equals(that.source);
    }

    @Override
    public int hashCode() {
        return Objects.hash(source);
    }

    @JsonValue
    @Override
    public String toString() {
        return source;
    }
}
