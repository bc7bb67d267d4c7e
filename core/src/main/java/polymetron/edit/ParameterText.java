package polymetron.edit;

import java.math.BigInteger;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import polymetron.address.Address;
import polymetron.expression.Expression;
import polymetron.expression.ExpressionException;
import polymetron.expression.NumberList;
import polymetron.library.ParameterType;
import polymetron.quantity.TypedQuantities;

/** What a user may write as the value of a parameter, brought into the form that is stored. */
public final class ParameterText {
    /** A literal of IEEE 1800, such as {@code 32'h1000_0000}. */
    private static final Pattern LITERAL = Pattern.compile("\\d*'[hdbo]\\w+");

    private ParameterText() {}

    /**
     * @throws RejectedEdit when the text cannot be a value of the parameter
     */
    public static String check(ParameterType parameter, String text) {
        String value = text.strip();
        String number = TypedQuantities.plain(value, parameter.unit());
        boolean hadUnits = !number.equals(value);
        return switch (parameter.form()) {
            case CHOICE -> choice(parameter, value);
            case BOOLEAN -> truth(parameter, value);
            case TEXT -> plain(parameter, value);
            case NUMBERS -> read(parameter, value, NumberList::parse);
            case REAL -> read(parameter, number, Expression::parse);
            case ADDRESS ->
                    number(parameter, number, hadUnits || LITERAL.matcher(number).matches())
                            .map(bits -> Address.format(bits.longValue()))
                            .orElse(number);
            case SIZE, INTEGER ->
                    number(parameter, number, hadUnits).map(BigInteger::toString).orElse(number);
        };
    }

    private static String choice(ParameterType parameter, String value) {
        if (parameter.choices().stream().noneMatch(choice -> choice.value().equals(value))) {
            throw new RejectedEdit(
                    "value",
                    "%s cannot be '%s'; it is one of %s"
                            .formatted(
                                    parameter.title(),
                                    value,
                                    parameter.choices().stream()
                                            .map(ParameterType.Choice::value)
                                            .collect(Collectors.joining(", "))));
        }
        return value;
    }

    private static String plain(ParameterType parameter, String value) {
        if (!ParameterType.isPlainText(value)) {
            throw new RejectedEdit(
                    "value",
                    "%s takes letters, digits and signs of ASCII without quotes and backslashes"
                            .formatted(parameter.title()));
        }
        return value;
    }

    private static String truth(ParameterType parameter, String value) {
        return switch (value.toLowerCase(Locale.ROOT)) {
            case "1", "true", "yes", "on" -> "1";
            case "0", "false", "no", "off" -> "0";
            default ->
                    throw new RejectedEdit(
                            "value", "%s is 0 or 1, not '%s'".formatted(parameter.title(), value));
        };
    }

    /**
     * The number that was written plainly; empty for an expression, which is stored as it is.
     *
     * @param isWorkedOut whether an expression without parameters is a number as well, as a sum of sizes is
     */
    private static Optional<BigInteger> number(
            ParameterType parameter, String value, boolean isWorkedOut) {
        Optional<BigInteger> plain = isWorkedOut ? constant(value) : Address.quantity(value);
        if (plain.isPresent()) {
            if (plain.get().bitLength() > 64) {
                throw new RejectedEdit(
                        "value",
                        "%s cannot be %s: that needs %s bits, at most 64 are possible"
                                .formatted(parameter.title(), value, plain.get().bitLength()));
            }
            return plain;
        }
        read(parameter, value, Expression::parse);
        return Optional.empty();
    }

    /** What an expression without parameters comes to. */
    private static Optional<BigInteger> constant(String value) {
        try {
            Expression expression = Expression.parse(value);
            return expression.names().isEmpty()
                    ? Optional.of(expression.evaluate(Map.of()).asNumber())
                    : Optional.empty();
        } catch (ExpressionException wrong) {
            return Address.quantity(value);
        }
    }

    /** What would be right, in words. */
    private static String example(ParameterType parameter) {
        String initial = parameter.initial();
        boolean isPlain = initial != null && isOneWord(initial);
        return switch (parameter.form()) {
            case SIZE -> "a size, such as 4096 or 16 KiB, or an expression of parameters";
            case ADDRESS -> "an address, such as 0x1000_0000, or an expression of parameters";
            case NUMBERS -> "numbers with commas between them";
            default ->
                    "a number, such as %s, or an expression of parameters"
                            .formatted(isPlain ? initial : "8");
        };
    }

    /** Where in it the mistake is says nothing more then. */
    private static boolean isOneWord(String text) {
        return text.length() <= 20 && text.matches("[\\w.,'-]*");
    }

    /** The text as it is, where a reader of its form takes it. */
    private static String read(ParameterType parameter, String value, Consumer<String> reader) {
        try {
            reader.accept(value);
            return value;
        } catch (ExpressionException wrong) {
            throw new RejectedEdit(
                    "value",
                    "%s cannot be '%s'; write %s%s"
                            .formatted(
                                    parameter.title(),
                                    value,
                                    example(parameter),
                                    isOneWord(value) ? "" : " (" + wrong.reason() + ")"));
        }
    }
}
