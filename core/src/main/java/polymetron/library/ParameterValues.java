package polymetron.library;

import java.math.BigDecimal;
import java.math.BigInteger;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import polymetron.address.Address;
import polymetron.expression.Expression;
import polymetron.expression.ExpressionException;
import polymetron.expression.NumberList;
import polymetron.expression.Value;

/**
 * Evaluates the parameters of a block. A parameter may refer to others; each is evaluated once, on first use, so
 * the time is linear in the size of the expressions and a cycle is met as a name that is still being evaluated.
 */
public final class ParameterValues {
    private static final int NUMBER_WIDTH = 64;
    private final BlockType type;
    private final Map<String, String> chosen;
    private final Map<String, Value> values = new LinkedHashMap<>();
    private final Set<String> open = new LinkedHashSet<>();
    private final Set<String> ignored = new HashSet<>();
    private final List<ParameterFault> faults = new ArrayList<>();

    private ParameterValues(BlockType type, Map<String, String> chosen) {
        this.type = type;
        this.chosen = chosen;
    }

    public record Outcome(Map<String, Value> values, List<ParameterFault> faults) {}

    public static Outcome of(BlockType type, Map<String, String> chosen) {
        ParameterValues evaluation = new ParameterValues(type, chosen);
        for (ParameterType parameter : type.parameters()) {
            evaluation.settle(parameter);
        }
        // Limits may depend on every parameter, so they come after all values.
        for (ParameterType parameter : type.parameters()) {
            evaluation.checkLimits(parameter);
        }
        return new Outcome(evaluation.values, evaluation.faults);
    }

    /** A parameter was met while it was being evaluated; carries the parameters of the circle. */
    private static final class Circle extends RuntimeException {
        private final List<String> members;

        private Circle(List<String> members) {
            super(null, null, false, false);
            this.members = members;
        }

        private String words() {
            return "%s depends on itself: %s → %s"
                    .formatted(members.getFirst(), String.join(" → ", members), members.getFirst());
        }
    }

    private Value settle(ParameterType parameter) {
        String name = parameter.name();
        if (values.containsKey(name)) {
            return values.get(name);
        }
        if (!open.add(name)) {
            List<String> path = List.copyOf(open);
            throw new Circle(path.subList(path.indexOf(name), path.size()));
        }
        String text = text(parameter);
        Value value;
        try {
            value = evaluate(parameter, text);
        } catch (ExpressionException wrong) {
            faults.add(noValue(parameter, text, wrong.getMessage()));
            open.remove(name);
            if (chosen.containsKey(name) && ignored.add(name)) {
                return settle(parameter);
            }
            value = zero();
        } catch (Circle circle) {
            open.remove(name);
            if (!circle.members.getFirst().equals(name)) {
                throw circle;
            }
            if (breakCircle(circle)) {
                return settle(parameter);
            }
            value = zero();
        } finally {
            open.remove(name);
        }
        values.put(name, value);
        return value;
    }

    private String text(ParameterType parameter) {
        return ignored.contains(parameter.name())
                ? parameter.initial()
                : chosen.getOrDefault(parameter.name(), parameter.initial());
    }

    private static ParameterFault noValue(ParameterType parameter, String text, String why) {
        return new ParameterFault(
                parameter, "%s = %s has no value: %s".formatted(parameter.title(), text, why));
    }

    /**
     * Goes on with the default of the first parameter of the loop that has a chosen value: that choice
     * closed the loop. False when the defaults alone form a loop.
     */
    private boolean breakCircle(Circle circle) {
        for (ParameterType parameter : type.parameters()) {
            String name = parameter.name();
            if (circle.members.contains(name) && chosen.containsKey(name) && ignored.add(name)) {
                faults.add(noValue(parameter, chosen.get(name), circle.words()));
                return true;
            }
        }
        ParameterType first = type.parameter(circle.members.getFirst()).orElseThrow();
        faults.add(noValue(first, first.initial(), circle.words()));
        return false;
    }

    private static Value zero() {
        return Value.Bits.of(BigInteger.ZERO, NUMBER_WIDTH, true);
    }

    private Value fallback(ParameterType parameter) {
        try {
            return evaluate(parameter, parameter.initial());
        } catch (ExpressionException alsoWrong) {
            return zero();
        }
    }

    private Value evaluate(ParameterType parameter, String text) {
        return switch (parameter.form()) {
            case CHOICE -> {
                if (parameter.choices().stream().noneMatch(choice -> choice.value().equals(text))) {
                    throw new ExpressionException(
                            "it is one of "
                                    + String.join(
                                            ", ",
                                            parameter.choices().stream()
                                                    .map(ParameterType.Choice::value)
                                                    .toList()));
                }
                yield new Value.Text(text);
            }
            case TEXT -> {
                if (!ParameterType.isPlainText(text)) {
                    throw new ExpressionException("it has signs that are not plain ASCII");
                }
                yield new Value.Text(text);
            }
            case NUMBERS -> new Value.Text(numbers(parameter, text));
            case REAL ->
                    new Value.Real(
                            Expression.parse(text)
                                    .evaluate(this::lookUp)
                                    .asDecimal()
                                    .doubleValue());
            case BOOLEAN -> Value.Bits.bit(number(text).signum() != 0);
            case ADDRESS -> unsigned(number(text));
            case INTEGER, SIZE -> signed(number(text));
        };
    }

    /** A list of numbers, each within the limits, written the same way however it was typed. */
    private String numbers(ParameterType parameter, String text) {
        List<BigInteger> numbers = NumberList.parse(text);
        for (BigInteger each : numbers) {
            for (boolean isLeast : new boolean[] {true, false}) {
                Expression limit = isLeast ? parameter.minimum() : parameter.maximum();
                BigInteger bound = limit == null ? each : limit.evaluate(this::lookUp).asNumber();
                if (isLeast ? each.compareTo(bound) < 0 : each.compareTo(bound) > 0) {
                    throw new ExpressionException(
                            "%s is %s than %s".formatted(each, isLeast ? "less" : "more", bound));
                }
            }
        }
        return numbers.stream().map(BigInteger::toString).collect(Collectors.joining(", "));
    }

    private BigInteger number(String text) {
        Optional<BigInteger> plain = Address.quantity(text);
        return plain.isPresent()
                ? plain.get()
                : Expression.parse(text).evaluate(this::lookUp).asNumber();
    }

    private Value lookUp(String name) {
        return type.parameter(name).map(this::settle).orElse(null);
    }

    private static Value unsigned(BigInteger number) {
        if (number.signum() < 0 || number.bitLength() > NUMBER_WIDTH) {
            throw new ExpressionException(
                    "%s is not an address: addresses go from 0 to 2^64 - 1".formatted(number));
        }
        return Value.Bits.of(number, NUMBER_WIDTH, false);
    }

    private static Value signed(BigInteger number) {
        if (number.bitLength() >= NUMBER_WIDTH) {
            throw new ExpressionException("%s needs more than 64 bits".formatted(number));
        }
        return Value.Bits.of(number, NUMBER_WIDTH, true);
    }

    private void checkLimits(ParameterType parameter) {
        if (parameter.form().isText()) {
            return;
        }
        try {
            BigDecimal value = values.get(parameter.name()).asDecimal();
            if (parameter.minimum() != null
                    || parameter.maximum() != null
                    || parameter.multipleOf() != null) {
                check(parameter, value);
            }
        } catch (ExpressionException wrong) {
            faults.add(
                    new ParameterFault(
                            parameter,
                            "the limits of %s: %s"
                                    .formatted(parameter.title(), wrong.getMessage())));
        }
    }

    private void check(ParameterType parameter, BigDecimal value) {
        BigDecimal lowest = limit(parameter.minimum());
        BigDecimal highest = limit(parameter.maximum());
        BigDecimal step = limit(parameter.multipleOf());
        boolean low = lowest != null && value.compareTo(lowest) < 0;
        boolean high = highest != null && value.compareTo(highest) > 0;
        boolean between = step != null && step.signum() != 0 && value.remainder(step).signum() != 0;
        if (low || high || between) {
            String must =
                    between && parameter.isPowerOfTwo()
                            ? allowed(lowest, highest, null) + " and a power of two"
                            : allowed(lowest, highest, between ? step : null);
            faults.add(
                    new ParameterFault(
                            parameter,
                            "%s is %s%s; it must be %s"
                                    .formatted(
                                            parameter.title(),
                                            value.toPlainString(),
                                            chain(parameter),
                                            must)));
            values.put(parameter.name(), fallback(parameter));
        }
    }

    /** Where a value comes from: the expression, and the values of all parameters that it leads to. */
    private String chain(ParameterType parameter) {
        List<String> steps = new ArrayList<>();
        follow(parameter, steps, new HashSet<>());
        return steps.isEmpty() ? "" : ", because " + String.join(", ", steps);
    }

    private void follow(ParameterType parameter, List<String> steps, Set<String> told) {
        String text = text(parameter);
        if (parameter.form().isText()
                || !told.add(parameter.name())
                || Address.quantity(text).isPresent()) {
            return;
        }
        Set<String> names;
        try {
            names = Expression.parse(text).names();
        } catch (ExpressionException wrong) {
            return;
        }
        if (names.isEmpty()) {
            return;
        }
        steps.add("%s = %s".formatted(parameter.name(), text));
        for (String name : names) {
            ParameterType other = type.parameter(name).orElse(null);
            if (other != null && values.containsKey(name) && told.add("value " + name)) {
                steps.add("%s is %s".formatted(name, values.get(name)));
                follow(other, steps, told);
            }
        }
    }

    private BigDecimal limit(Expression expression) {
        return expression == null ? null : expression.evaluate(values).asDecimal();
    }

    private static String allowed(BigDecimal lowest, BigDecimal highest, BigDecimal step) {
        String range;
        if (lowest != null && highest != null) {
            range = "%s to %s".formatted(lowest, highest);
        } else if (lowest != null) {
            range = "at least %s".formatted(lowest);
        } else {
            range = highest == null ? "" : "at most %s".formatted(highest);
        }
        if (step == null) {
            return range;
        }
        return (range.isEmpty() ? "" : range + " and ") + "a multiple of " + step;
    }
}
