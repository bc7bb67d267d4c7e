package polymetron.expression;

import java.math.BigInteger;
import java.util.List;
import java.util.Set;
import java.util.function.Function;

/**
 * A node of an expression's tree. Evaluation follows IEEE 1800-2017, 11.8.2: first width and sign of the whole
 * are found from the operands, then both are handed down to the context-determined operands, which are extended
 * before they are combined.
 */
sealed interface Node {
    /** Wider vectors than this are refused: no parameter needs them, and they would only eat memory. */
    int WIDEST = 65_536;

    /** Width and sign that an expression has by itself (table 11-21). */
    record Shape(int width, boolean signed, boolean real) {
        static final Shape REAL = new Shape(64, true, true);

        Shape(int width, boolean signed) {
            this(width, signed, false);
        }

        /** One real operand makes the whole real (11.3.1). */
        Shape join(Shape other) {
            return new Shape(
                    Math.max(width, other.width), signed && other.signed, real || other.real);
        }
    }

    Shape shape(Function<String, Value> scope);

    Value evaluate(Function<String, Value> scope, Shape context);

    void collectNames(Set<String> names);

    default Value evaluate(Function<String, Value> scope) {
        return evaluate(scope, shape(scope));
    }

    private static Value.Bits bits(Value value) {
        if (value instanceof Value.Bits bits) {
            return bits;
        }
        throw new ExpressionException(
                value instanceof Value.Real
                        ? "%s is a real number; only integers can be used here".formatted(value)
                        : "\"%s\" is a string; a number is needed here".formatted(value));
    }

    private static Shape integer(Shape shape) {
        if (shape.real()) {
            throw new ExpressionException("a real number has no bits to work on");
        }
        return shape;
    }

    private static double real(Value value) {
        return switch (value) {
            case Value.Real real -> real.number();
            case Value.Bits bits -> bits.number().doubleValue();
            case Value.Text text ->
                    throw new ExpressionException(
                            "\"%s\" is a string; a number is needed here".formatted(text));
        };
    }

    private static Value extend(Value.Bits value, Shape context) {
        if (context.real()) {
            return new Value.Real(value.number().doubleValue());
        }
        BigInteger number = context.signed() ? value.number() : value.pattern();
        return new Value.Bits(
                number.and(Value.Bits.mask(context.width())),
                context.width(),
                context.signed(),
                value.sized());
    }

    record Constant(Value value) implements Node {
        @Override
        public Shape shape(Function<String, Value> scope) {
            return shapeOf(value);
        }

        @Override
        public Value evaluate(Function<String, Value> scope, Shape context) {
            return value instanceof Value.Bits bits ? extend(bits, context) : value;
        }

        @Override
        public void collectNames(Set<String> names) {}

        static Shape shapeOf(Value value) {
            return switch (value) {
                case Value.Bits bits -> new Shape(bits.width(), bits.signed());
                case Value.Real real -> Shape.REAL;
                case Value.Text text -> new Shape(Math.max(1, 8 * text.text().length()), false);
            };
        }
    }

    record Name(String name) implements Node {
        @Override
        public Shape shape(Function<String, Value> scope) {
            return Constant.shapeOf(value(scope));
        }

        @Override
        public Value evaluate(Function<String, Value> scope, Shape context) {
            return new Constant(value(scope)).evaluate(scope, context);
        }

        @Override
        public void collectNames(Set<String> names) {
            names.add(name);
        }

        private Value value(Function<String, Value> scope) {
            Value value = scope.apply(name);
            if (value == null) {
                throw new ExpressionException("there is no parameter named %s".formatted(name));
            }
            return value;
        }
    }

    record Unary(String operator, Node operand) implements Node {
        @Override
        public Shape shape(Function<String, Value> scope) {
            return switch (operator) {
                case "+", "-" -> operand.shape(scope);
                case "~" -> integer(operand.shape(scope));
                default -> new Shape(1, false);
            };
        }

        @Override
        public Value evaluate(Function<String, Value> scope, Shape context) {
            return switch (operator) {
                case "+" -> operand.evaluate(scope, context);
                case "-" -> arithmetic(scope, context, BigInteger::negate);
                case "~" -> arithmetic(scope, context, BigInteger::not);
                case "!" -> extend(Value.Bits.bit(!operand.evaluate(scope).isTrue()), context);
                default -> extend(Value.Bits.bit(reduce(bits(operand.evaluate(scope)))), context);
            };
        }

        private Value arithmetic(
                Function<String, Value> scope,
                Shape context,
                Function<BigInteger, BigInteger> operation) {
            if (context.real()) {
                if (operator.equals("-")) {
                    return new Value.Real(-real(operand.evaluate(scope, context)));
                }
                Shape own = shape(scope);
                return extend(bits(arithmetic(scope, own, operation)), context);
            }
            Value.Bits value = bits(operand.evaluate(scope, context));
            return Value.Bits.of(
                    operation.apply(value.pattern()), context.width(), context.signed());
        }

        private boolean reduce(Value.Bits value) {
            boolean all = value.pattern().equals(Value.Bits.mask(value.width()));
            boolean any = value.pattern().signum() != 0;
            boolean odd = value.pattern().bitCount() % 2 == 1;
            return switch (operator) {
                case "&" -> all;
                case "~&" -> !all;
                case "|" -> any;
                case "~|" -> !any;
                case "^" -> odd;
                default -> !odd;
            };
        }

        @Override
        public void collectNames(Set<String> names) {
            operand.collectNames(names);
        }
    }

    record Binary(String operator, Node left, Node right) implements Node {
        @Override
        public Shape shape(Function<String, Value> scope) {
            return switch (operator) {
                case "<<", ">>", "<<<", ">>>" -> integer(left.shape(scope));
                case "**" -> {
                    Shape base = left.shape(scope);
                    yield right.shape(scope).real() ? Shape.REAL : base;
                }
                case "+", "-", "*", "/" -> left.shape(scope).join(right.shape(scope));
                case "%", "&", "|", "^", "~^", "^~" ->
                        integer(left.shape(scope).join(right.shape(scope)));
                default -> new Shape(1, false);
            };
        }

        @Override
        public Value evaluate(Function<String, Value> scope, Shape context) {
            return switch (operator) {
                case "&&" ->
                        extend(
                                truth(
                                        left.evaluate(scope).isTrue()
                                                && right.evaluate(scope).isTrue()),
                                context);
                case "||" ->
                        extend(
                                truth(
                                        left.evaluate(scope).isTrue()
                                                || right.evaluate(scope).isTrue()),
                                context);
                case "==", "!=", "===", "!==", "<", "<=", ">", ">=" ->
                        extend(truth(compare(scope)), context);
                case "<<", ">>", "<<<", ">>>" -> shift(scope, context);
                case "**" -> power(scope, context);
                default -> combine(scope, context);
            };
        }

        private static Value.Bits truth(boolean set) {
            return Value.Bits.bit(set);
        }

        private boolean compare(Function<String, Value> scope) {
            Shape common = left.shape(scope).join(right.shape(scope));
            Value one = left.evaluate(scope, common);
            Value other = right.evaluate(scope, common);
            int order;
            if (one instanceof Value.Text text && other instanceof Value.Text that) {
                order = text.text().compareTo(that.text());
            } else if (common.real()) {
                order = Double.compare(real(one) + 0.0, real(other) + 0.0);
            } else {
                order = bits(one).number().compareTo(bits(other).number());
            }
            return switch (operator) {
                case "==", "===" -> order == 0;
                case "!=", "!==" -> order != 0;
                case "<" -> order < 0;
                case "<=" -> order <= 0;
                case ">" -> order > 0;
                default -> order >= 0;
            };
        }

        private Value shift(Function<String, Value> scope, Shape context) {
            if (context.real()) {
                return extend(bits(shift(scope, shape(scope))), context);
            }
            Value.Bits value = bits(left.evaluate(scope, context));
            BigInteger amount = bits(right.evaluate(scope)).pattern();
            int places =
                    amount.bitLength() > 20
                            ? context.width()
                            : Math.min(amount.intValue(), context.width());
            BigInteger result =
                    switch (operator) {
                        case "<<", "<<<" -> value.pattern().shiftLeft(places);
                        case ">>" -> value.pattern().shiftRight(places);
                        default -> value.number().shiftRight(places);
                    };
            return Value.Bits.of(result, context.width(), context.signed());
        }

        private Value power(Function<String, Value> scope, Shape context) {
            if (context.real()) {
                return new Value.Real(
                        Math.pow(real(left.evaluate(scope, context)), real(right.evaluate(scope))));
            }
            BigInteger base = bits(left.evaluate(scope, context)).number();
            BigInteger exponent = right.evaluate(scope).asNumber();
            BigInteger modulus = BigInteger.ONE.shiftLeft(context.width());
            if (exponent.signum() >= 0) {
                return Value.Bits.of(
                        base.mod(modulus).modPow(exponent, modulus),
                        context.width(),
                        context.signed());
            }
            // Negative exponents, IEEE 1800-2017, table 11-4.
            if (base.signum() == 0) {
                throw new ExpressionException("0 ** %s divides by zero".formatted(exponent));
            }
            boolean unit = base.abs().equals(BigInteger.ONE);
            BigInteger sign = exponent.testBit(0) ? base : BigInteger.ONE;
            return Value.Bits.of(unit ? sign : BigInteger.ZERO, context.width(), context.signed());
        }

        private Value combineReals(Function<String, Value> scope, Shape context) {
            if (!List.of("+", "-", "*", "/").contains(operator)) {
                return extend(bits(combine(scope, shape(scope))), context);
            }
            double one = real(left.evaluate(scope, context));
            double other = real(right.evaluate(scope, context));
            if (operator.equals("/") && other == 0) {
                throw new ExpressionException("division by zero in %s / 0".formatted(one));
            }
            return new Value.Real(
                    switch (operator) {
                        case "+" -> one + other;
                        case "-" -> one - other;
                        case "*" -> one * other;
                        default -> one / other;
                    });
        }

        private Value combine(Function<String, Value> scope, Shape context) {
            if (context.real()) {
                return combineReals(scope, context);
            }
            Value.Bits one = bits(left.evaluate(scope, context));
            Value.Bits other = bits(right.evaluate(scope, context));
            if ((operator.equals("/") || operator.equals("%")) && other.pattern().signum() == 0) {
                throw new ExpressionException(
                        "division by zero in %s %s %s"
                                .formatted(one.number(), operator, other.number()));
            }
            BigInteger result =
                    switch (operator) {
                        case "+" -> one.pattern().add(other.pattern());
                        case "-" -> one.pattern().subtract(other.pattern());
                        case "*" -> one.pattern().multiply(other.pattern());
                        case "/" -> one.number().divide(other.number());
                        case "%" -> one.number().remainder(other.number());
                        case "&" -> one.pattern().and(other.pattern());
                        case "|" -> one.pattern().or(other.pattern());
                        case "^" -> one.pattern().xor(other.pattern());
                        default -> one.pattern().xor(other.pattern()).not();
                    };
            return Value.Bits.of(result, context.width(), context.signed());
        }

        @Override
        public void collectNames(Set<String> names) {
            left.collectNames(names);
            right.collectNames(names);
        }
    }

    record Conditional(Node condition, Node then, Node otherwise) implements Node {
        @Override
        public Shape shape(Function<String, Value> scope) {
            return then.shape(scope).join(otherwise.shape(scope));
        }

        @Override
        public Value evaluate(Function<String, Value> scope, Shape context) {
            return (condition.evaluate(scope).isTrue() ? then : otherwise).evaluate(scope, context);
        }

        @Override
        public void collectNames(Set<String> names) {
            condition.collectNames(names);
            then.collectNames(names);
            otherwise.collectNames(names);
        }
    }

    record Concatenation(List<Node> parts) implements Node {
        @Override
        public Shape shape(Function<String, Value> scope) {
            return new Shape(
                    checked(parts.stream().mapToLong(part -> part.shape(scope).width()).sum()),
                    false);
        }

        @Override
        public Value evaluate(Function<String, Value> scope, Shape context) {
            BigInteger pattern = BigInteger.ZERO;
            int width = 0;
            for (Node part : parts) {
                Value.Bits value = bits(part.evaluate(scope));
                if (!value.sized()) {
                    throw new ExpressionException(
                            "%s in a concatenation needs a width, such as 8'd%s"
                                    .formatted(value, value.pattern()));
                }
                pattern = pattern.shiftLeft(value.width()).or(value.pattern());
                width += value.width();
            }
            return extend(Value.Bits.of(pattern, width, false), context);
        }

        static int checked(long width) {
            if (width < 1 || width > WIDEST) {
                throw new ExpressionException(
                        "the result would be %s bits wide; between 1 and %s are possible"
                                .formatted(width, WIDEST));
            }
            return (int) width;
        }

        @Override
        public void collectNames(Set<String> names) {
            parts.forEach(part -> part.collectNames(names));
        }
    }

    record Replication(Node times, Concatenation repeated) implements Node {
        @Override
        public Shape shape(Function<String, Value> scope) {
            BigInteger count = times.evaluate(scope).asNumber();
            if (count.signum() <= 0 || count.bitLength() > 17) {
                throw new ExpressionException(
                        "a replication cannot repeat %s times".formatted(count));
            }
            return new Shape(
                    Concatenation.checked(count.longValue() * repeated.shape(scope).width()),
                    false);
        }

        @Override
        public Value evaluate(Function<String, Value> scope, Shape context) {
            int width = shape(scope).width();
            Value.Bits one = bits(repeated.evaluate(scope));
            BigInteger pattern = BigInteger.ZERO;
            for (int filled = 0; filled < width; filled += one.width()) {
                pattern = pattern.shiftLeft(one.width()).or(one.pattern());
            }
            return extend(Value.Bits.of(pattern, width, false), context);
        }

        @Override
        public void collectNames(Set<String> names) {
            times.collectNames(names);
            repeated.collectNames(names);
        }
    }

    record Call(String function, Node argument) implements Node {
        @Override
        public Shape shape(Function<String, Value> scope) {
            return switch (function) {
                case "$itor", "$ceil", "$floor", "$sqrt", "$ln", "$log10", "$exp" -> Shape.REAL;
                case "$signed" -> new Shape(argument.shape(scope).width(), true);
                case "$unsigned" -> new Shape(argument.shape(scope).width(), false);
                default -> new Shape(32, true);
            };
        }

        @Override
        public Value evaluate(Function<String, Value> scope, Shape context) {
            Shape own = shape(scope);
            if (own.real()) {
                return new Value.Real(realResult(real(argument.evaluate(scope))));
            }
            BigInteger result =
                    switch (function) {
                        case "$rtoi" ->
                                new java.math.BigDecimal(real(argument.evaluate(scope)))
                                        .toBigInteger();
                        case "$clog2" -> ceilingLog2(bits(argument.evaluate(scope)).pattern());
                        case "$bits" -> BigInteger.valueOf(argument.shape(scope).width());
                        default -> bits(argument.evaluate(scope)).pattern();
                    };
            return extend(Value.Bits.of(result, own.width(), own.signed()), context);
        }

        /** IEEE 1800-2017, 20.5 and 20.8.2. */
        private double realResult(double value) {
            return switch (function) {
                case "$ceil" -> Math.ceil(value);
                case "$floor" -> Math.floor(value);
                case "$sqrt" -> Math.sqrt(value);
                case "$ln" -> Math.log(value);
                case "$log10" -> Math.log10(value);
                case "$exp" -> Math.exp(value);
                default -> value;
            };
        }

        /** IEEE 1800-2017, 20.8.1: the argument is unsigned, and 0 gives 0. */
        private static BigInteger ceilingLog2(BigInteger value) {
            return value.signum() == 0
                    ? BigInteger.ZERO
                    : BigInteger.valueOf(value.subtract(BigInteger.ONE).bitLength());
        }

        @Override
        public void collectNames(Set<String> names) {
            argument.collectNames(names);
        }
    }

    /**
     * A whole number of a list that is written as a text, with commas between; 0 where the list ends before it.
     *
     * @param list the text
     * @param place of the number, from 0
     */
    record Item(Node list, Node place) implements Node {
        private static final Shape NUMBER = new Shape(Integer.SIZE, true);

        @Override
        public Shape shape(Function<String, Value> scope) {
            return NUMBER;
        }

        @Override
        public Value evaluate(Function<String, Value> scope, Shape context) {
            if (!(list.evaluate(scope) instanceof Value.Text text)) {
                throw new ExpressionException("$item takes a text, numbers with commas between");
            }
            int at = place.evaluate(scope).asNumber().intValueExact();
            List<BigInteger> items = NumberList.parse(text.text());
            BigInteger value = at >= 0 && at < items.size() ? items.get(at) : BigInteger.ZERO;
            return extend(Value.Bits.of(value, Integer.SIZE, true), context);
        }

        @Override
        public void collectNames(Set<String> names) {
            list.collectNames(names);
            place.collectNames(names);
        }
    }
}
