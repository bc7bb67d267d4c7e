package polymetron.hdl;

import java.math.BigInteger;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import org.antlr.v4.runtime.ParserRuleContext;
import polymetron.hdl.grammar.VhdlHeader;

/**
 * Whole numbers of VHDL (IEEE 1076-2008, 9) written as expressions of IEEE 1800, in which everything else here is written.
 * Types are not looked at: {@code natural(ceil(log2(real(DEPTH))))} is what {@code $clog2(DEPTH)} is.
 */
final class VhdlExpression {
    /** Weakest to strongest binding of what was written. */
    private static final int CHOICE = 0;

    private static final int LOGICAL = 1;
    private static final int RELATION = 2;
    private static final int SUM = 3;
    private static final int PRODUCT = 4;
    private static final int POWER = 5;
    private static final int ATOM = 6;

    private static final int LONGEST = 2000;

    private static final Map<String, String> LOGICALS =
            Map.of("and", "&&", "or", "||", "xor", "!=");
    private static final Map<String, String> RELATIONS = Map.of("=", "==", "/=", "!=");
    private static final List<String> CONVERSIONS =
            List.of("integer", "natural", "positive", "real");

    /** How generics are spelled where they are declared: VHDL tells no cases apart, the expressions here do. */
    private final Map<String, String> spellings;

    private record Written(String text, int binding) {
        private String within(int least) {
            return binding < least ? "(" + text + ")" : text;
        }
    }

    /** Something that has no counterpart. */
    static final class Unknown extends RuntimeException {
        private final int line;

        private Unknown(ParserRuleContext where, String why) {
            super(why);
            this.line = where.getStart().getLine();
        }

        int line() {
            return line;
        }
    }

    /**
     * @param spellings names in lower case, and how they are to be written
     */
    VhdlExpression(Map<String, String> spellings) {
        this.spellings = spellings;
    }

    /**
     * @throws Unknown when it is no expression of whole numbers
     */
    String of(VhdlHeader.ExpressionContext expression) {
        int length =
                expression.getStop().getStopIndex() - expression.getStart().getStartIndex() + 1;
        if (length > LONGEST) {
            throw new Unknown(
                    expression,
                    "an expression has at most %s characters, this one %s"
                            .formatted(LONGEST, length));
        }
        return expression(expression).text();
    }

    private Written expression(VhdlHeader.ExpressionContext expression) {
        Written all = relation(expression.relation(0));
        for (int at = 1; at < expression.relation().size(); at++) {
            String word = expression.LOGICAL(at - 1).getText().toLowerCase(Locale.ROOT);
            String operator = LOGICALS.get(word);
            if (operator == null) {
                throw new Unknown(expression, "'%s' is not worked out here".formatted(word));
            }
            // One level in VHDL, several elsewhere.
            String one = all.within(at == 1 ? RELATION : ATOM);
            all =
                    new Written(
                            "%s %s %s"
                                    .formatted(
                                            one,
                                            operator,
                                            relation(expression.relation(at)).within(RELATION)),
                            LOGICAL);
        }
        return all;
    }

    private Written relation(VhdlHeader.RelationContext relation) {
        Written first = sum(relation.sum(0));
        if (relation.RELATION() == null) {
            return first;
        }
        String sign = relation.RELATION().getText();
        return new Written(
                "%s %s %s"
                        .formatted(
                                first.within(SUM),
                                RELATIONS.getOrDefault(sign, sign),
                                sum(relation.sum(1)).within(SUM)),
                RELATION);
    }

    private Written sum(VhdlHeader.SumContext sum) {
        Written all = product(sum.product(0));
        if (sum.sign != null) {
            // The sign holds for the whole first product (9.2.6).
            all = new Written(sum.sign.getText() + all.within(ATOM), SUM);
        }
        for (int at = 1; at < sum.product().size(); at++) {
            VhdlHeader.AdditionContext operator = sum.addition(at - 1);
            if (operator.CONCATENATION() != null) {
                throw new Unknown(sum, "'&' joins vectors; write a whole number");
            }
            all =
                    new Written(
                            "%s %s %s"
                                    .formatted(
                                            all.within(SUM),
                                            operator.getText(),
                                            product(sum.product(at)).within(PRODUCT)),
                            SUM);
        }
        return all;
    }

    private Written product(VhdlHeader.ProductContext product) {
        Written all = factor(product.factor(0));
        for (int at = 1; at < product.factor().size(); at++) {
            String sign = product.multiplication(at - 1).getText().toLowerCase(Locale.ROOT);
            Written by = factor(product.factor(at));
            all =
                    sign.equals("mod")
                            ? modulo(all, by)
                            : new Written(
                                    "%s %s %s"
                                            .formatted(
                                                    all.within(PRODUCT),
                                                    sign.equals("rem") ? "%" : sign,
                                                    by.within(POWER)),
                                    PRODUCT);
        }
        return all;
    }

    /** The sign of a modulus is that of the divisor (9.2.7); a remainder's is that of the dividend. */
    private static Written modulo(Written one, Written by) {
        String divisor = by.within(ATOM);
        return new Written(
                "(%1$s %% %2$s + %2$s) %% %2$s".formatted(one.within(ATOM), divisor), PRODUCT);
    }

    private Written factor(VhdlHeader.FactorContext factor) {
        Written first = primary(factor.primary(0));
        if (factor.ABS() != null) {
            return new Written("%1$s < 0 ? -%1$s : %1$s".formatted(first.within(ATOM)), CHOICE);
        }
        if (factor.NOT() != null) {
            return new Written("!" + first.within(ATOM), POWER);
        }
        return factor.POWER() == null
                ? first
                : new Written(
                        "%s ** %s"
                                .formatted(
                                        first.within(ATOM),
                                        primary(factor.primary(1)).within(ATOM)),
                        POWER);
    }

    private Written primary(VhdlHeader.PrimaryContext primary) {
        if (primary.NUMBER() != null && primary.IDENTIFIER() == null) {
            return new Written(number(primary), ATOM);
        }
        if (primary.OPEN() != null
                && primary.choice().size() == 1
                && primary.choice(0).ARROW() == null) {
            return expression(primary.choice(0).expression(0));
        }
        if (primary.name() != null) {
            return name(primary.name());
        }
        throw new Unknown(primary, "'%s' is no whole number".formatted(HdlExpression.of(primary)));
    }

    private static String number(VhdlHeader.PrimaryContext primary) {
        String text = primary.NUMBER().getText().replace("_", "").toLowerCase(Locale.ROOT);
        try {
            if (text.contains("#")) {
                String[] parts = text.split("#");
                if (parts.length > 2) {
                    throw new NumberFormatException();
                }
                return new BigInteger(parts[1], Integer.parseInt(parts[0])).toString();
            }
            return text.contains(".") || text.contains("e")
                    ? new java.math.BigDecimal(text).toBigIntegerExact().toString()
                    : new BigInteger(text).toString();
        } catch (ArithmeticException | NumberFormatException wrong) {
            throw new Unknown(primary, "'%s' is no whole number".formatted(primary.getText()));
        }
    }

    private Written name(VhdlHeader.NameContext name) {
        String called = called(name.IDENTIFIER().stream().map(Object::toString).toList(), name);
        if (name.TICK() != null) {
            throw new Unknown(
                    name,
                    "'%s' is an attribute; write the number".formatted(HdlExpression.of(name)));
        }
        if (name.expression().isEmpty()) {
            return new Written(
                    switch (called) {
                        case "true" -> "1";
                        case "false" -> "0";
                        default -> spellings.getOrDefault(called, called);
                    },
                    ATOM);
        }
        List<Written> arguments = name.expression().stream().map(this::expression).toList();
        if (arguments.size() == 1 && CONVERSIONS.contains(called)) {
            return arguments.getFirst();
        }
        if (arguments.size() == 1 && called.equals("ceil")) {
            // Only of a logarithm: all else is whole already.
            return arguments.getFirst();
        }
        if (arguments.size() == 1 && called.equals("log2") && isRoundedUp(name)) {
            return new Written("$clog2(%s)".formatted(arguments.getFirst().text()), ATOM);
        }
        if (arguments.size() == 2 && (called.equals("maximum") || called.equals("minimum"))) {
            String one = arguments.get(0).within(ATOM);
            String other = arguments.get(1).within(ATOM);
            String sign = called.equals("maximum") ? ">" : "<";
            return new Written("%1$s %3$s %2$s ? %1$s : %2$s".formatted(one, other, sign), CHOICE);
        }
        throw new Unknown(
                name,
                "function %s is not worked out here; there are integer(ceil(log2(real(…)))), maximum and minimum"
                        .formatted(called));
    }

    /** Whether the expression, which is all of an argument, is that of {@code ceil}. */
    private static boolean isRoundedUp(ParserRuleContext inner) {
        ParserRuleContext around = inner.getParent();
        while (around != null && around.getText().equals(inner.getText())) {
            around = around.getParent();
        }
        return around instanceof VhdlHeader.NameContext name
                && name.IDENTIFIER(0).getText().equalsIgnoreCase("ceil");
    }

    /** In lower case; constants with their package alone, functions by their own name. */
    private static String called(List<String> parts, VhdlHeader.NameContext name) {
        List<String> all =
                parts.subList(0, parts.size() - (name.TICK() == null ? 0 : 1)).stream()
                        .map(each -> each.toLowerCase(Locale.ROOT))
                        .toList();
        int most = name.expression().isEmpty() ? 2 : 1;
        return String.join(".", all.subList(Math.max(0, all.size() - most), all.size()));
    }
}
