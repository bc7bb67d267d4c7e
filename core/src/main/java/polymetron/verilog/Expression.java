package polymetron.verilog;

import java.math.BigInteger;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.stream.Collectors;

/**
 * An expression of IEEE 1364-2005 with the number of its bits and the nets that it reads. Everything is unsigned, and
 * operands have equal widths, so that no implicit extension or truncation is left to the reader or to a tool.
 *
 * @param isPrimary whether it can stand in another expression without parentheses
 */
public record Expression(String text, int bits, List<String> reads, boolean isPrimary) {
    static Expression of(Net net) {
        return new Expression(net.name(), net.bits(), List.of(net.name()), true);
    }

    static Expression bits(Net net, int high, int low) {
        if (low < 0 || high < low || high >= net.bits()) {
            throw new IllegalArgumentException(
                    "%s has %s bits; there is no [%s:%s]"
                            .formatted(net.name(), net.bits(), high, low));
        }
        if (net.bits() == 1) {
            return of(net);
        }
        String range = high == low ? "[%s]".formatted(low) : "[%s:%s]".formatted(high, low);
        return new Expression(net.name() + range, high - low + 1, List.of(net.name()), true);
    }

    /** A constant, in hexadecimal. */
    public static Expression constant(int bits, long value) {
        // A negative value has ones above, however wide it is.
        BigInteger kept =
                BigInteger.valueOf(value)
                        .and(BigInteger.ONE.shiftLeft(bits).subtract(BigInteger.ONE));
        String text = bits == 1 ? "1'b%s".formatted(kept) : "%s'h%x".formatted(bits, kept);
        return new Expression(text, bits, List.of(), true);
    }

    /** All of these, the first one highest. */
    public static Expression concat(Expression... parts) {
        List<Expression> all = Arrays.stream(parts).filter(part -> part.bits() > 0).toList();
        if (all.size() == 1) {
            return all.getFirst();
        }
        return new Expression(
                all.stream().map(Expression::text).collect(Collectors.joining(", ", "{", "}")),
                all.stream().mapToInt(Expression::bits).sum(),
                reads(all),
                true);
    }

    /** The same bits so many times. */
    public Expression repeat(int times) {
        return times == 1
                ? this
                : new Expression("{%s{%s}}".formatted(times, text), bits * times, reads, true);
    }

    public Expression and(Expression other) {
        return operator("&", other);
    }

    public Expression or(Expression other) {
        return operator("|", other);
    }

    public Expression plus(Expression other) {
        return operator("+", other);
    }

    public Expression minus(Expression other) {
        return operator("-", other);
    }

    public Expression not() {
        return new Expression("~" + inner(), bits, reads, false);
    }

    /** One bit: whether both have the same value. */
    public Expression is(Expression other) {
        same(other);
        return new Expression(
                inner() + " == " + other.inner(), 1, reads(List.of(this, other)), false);
    }

    /** One bit: whether this is not above the other. */
    public Expression atMost(Expression other) {
        same(other);
        return new Expression(
                inner() + " <= " + other.inner(), 1, reads(List.of(this, other)), false);
    }

    /** One bit: whether any bit is 1. */
    public Expression any() {
        return bits == 1 ? this : new Expression("|" + inner(), 1, reads, false);
    }

    /** This where one bit is 1, else the other. */
    public static Expression choose(Expression condition, Expression then, Expression otherwise) {
        then.same(otherwise);
        return new Expression(
                condition.inner() + " ? " + then.inner() + " : " + otherwise.inner(),
                then.bits(),
                reads(List.of(condition, then, otherwise)),
                false);
    }

    /** With zeros above. */
    public Expression widened(int wanted) {
        return wanted == bits ? this : concat(constant(wanted - bits, 0), this);
    }

    private Expression operator(String operator, Expression other) {
        same(other);
        return new Expression(
                inner() + " " + operator + " " + other.inner(),
                bits,
                reads(List.of(this, other)),
                false);
    }

    private void same(Expression other) {
        if (other.bits != bits) {
            throw new IllegalArgumentException(
                    "%s has %s bits and %s has %s".formatted(text, bits, other.text, other.bits));
        }
    }

    private String inner() {
        return isPrimary ? text : "(" + text + ")";
    }

    static List<String> reads(List<Expression> parts) {
        List<String> all = new ArrayList<>();
        parts.forEach(part -> all.addAll(part.reads()));
        return List.copyOf(all);
    }
}
