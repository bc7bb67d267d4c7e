package polymetron.expression;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import polymetron.outside.Tool;

/** Constant expressions against {@code iverilog}, which follows IEEE 1800 clause 11 with strict widths. */
final class ExpressionsAgainstSimulatorTest {
    private static final int EXPRESSIONS = 600;
    private static final int REALS = 300;
    private static final List<String> BINARY =
            List.of(
                    "+", "-", "*", "/", "%", "&", "|", "^", "~^", "<<", ">>", "<<<", ">>>", "==",
                    "!=", "<", "<=", ">", ">=", "&&", "||");
    private static final List<String> UNARY =
            List.of("+", "-", "!", "~", "&", "|", "^", "~&", "~|", "~^");

    private final Random random = new Random(1800);

    @Test
    void resultsAreThoseOfTheSimulator(@TempDir Path folder) {
        List<String> sources = new ArrayList<>();
        StringBuilder module = new StringBuilder("module top;\ninitial begin\n");
        for (int count = 0; count < EXPRESSIONS; count++) {
            String source = expression(4);
            sources.add(source);
            module.append("$display(\"%b %0d\", ").append(source).append(", ").append(source);
            module.append(");\n");
        }
        module.append("end\nendmodule\n");
        Tool.write(folder, "top.v", module.toString());
        Tool.run(folder, "iverilog", "-g2012", "-gstrict-expr-width", "-o", "top", "top.v");
        String[] lines = Tool.run(folder, "vvp", "-n", "top").split("\n");

        int compared = 0;
        for (int at = 0; at < EXPRESSIONS; at++) {
            String wanted = lines[at].strip();
            String got = ours(sources.get(at));
            if (got == null) {
                continue;
            }
            compared++;
            assertThat(got).as(sources.get(at)).isEqualTo(wanted);
        }
        assertThat(compared).as("expressions without a division by zero").isGreaterThan(400);
    }

    /** Reals to their last bit; IEEE 1800 table 11-1 tells the operators, 20.8 and 20.5 the functions. */
    @Test
    void realsAreThoseOfTheSimulator(@TempDir Path folder) {
        List<String> sources = new ArrayList<>();
        StringBuilder module = new StringBuilder("module top;\ninitial begin\n");
        for (int count = 0; count < REALS; count++) {
            String source = real(4);
            sources.add(source);
            module.append("$display(\"%h\", $realtobits(").append(source).append("));\n");
        }
        module.append("end\nendmodule\n");
        Tool.write(folder, "top.v", module.toString());
        Tool.run(folder, "iverilog", "-g2012", "-o", "top", "top.v");
        String[] lines = Tool.run(folder, "vvp", "-n", "top").split("\n");

        int compared = 0;
        for (int at = 0; at < REALS; at++) {
            String got;
            try {
                Value value = Expression.parse(sources.get(at)).evaluate(Map.of());
                double number = ((Value.Real) value).number();
                got = "%016x".formatted(Double.doubleToLongBits(number));
            } catch (ExpressionException undefined) {
                assertThat(undefined).hasMessageContaining("zero");
                continue;
            }
            compared++;
            assertThat(got).as(sources.get(at)).isEqualTo(lines[at].strip());
        }
        assertThat(compared).as("reals without a division by zero").isGreaterThan(200);
    }

    private String real(int depth) {
        if (depth == 0 || random.nextInt(6) == 0) {
            return "%d.%d".formatted(random.nextInt(1000), random.nextInt(1000));
        }
        return switch (random.nextInt(8)) {
            case 0 -> "-(%s)".formatted(real(depth - 1));
            case 1 ->
                    "((%s %s %s) ? %s : %s)"
                            .formatted(
                                    real(depth - 1),
                                    List.of("<", "<=", ">", ">=", "==", "!=", "&&", "||")
                                            .get(random.nextInt(8)),
                                    real(depth - 1),
                                    real(depth - 1),
                                    real(depth - 1));
            case 2 -> "$floor(%s)".formatted(real(depth - 1));
            case 3 -> "$ceil(%s)".formatted(real(depth - 1));
            case 4 -> "$itor($rtoi(%s))".formatted(real(1));
            case 5 -> "(%s + %d)".formatted(real(depth - 1), random.nextInt(70_000));
            default ->
                    "(%s %s %s)"
                            .formatted(
                                    real(depth - 1),
                                    List.of("+", "-", "*", "/").get(random.nextInt(4)),
                                    real(depth - 1));
        };
    }

    /** Bits and number as the simulator prints them; null for a division by zero, which is x there. */
    private static String ours(String source) {
        try {
            Value.Bits bits = (Value.Bits) Expression.parse(source).evaluate(Map.of());
            String digits = bits.pattern().toString(2);
            return "0".repeat(bits.width() - digits.length()) + digits + " " + bits.number();
        } catch (ExpressionException undefined) {
            assertThat(undefined).hasMessageContaining("zero");
            return null;
        }
    }

    private String expression(int depth) {
        if (depth == 0 || random.nextInt(6) == 0) {
            return literal();
        }
        return switch (random.nextInt(10)) {
            case 0 -> UNARY.get(random.nextInt(UNARY.size())) + "(" + expression(depth - 1) + ")";
            case 1 ->
                    "(%s ? %s : %s)"
                            .formatted(
                                    expression(depth - 1),
                                    expression(depth - 1),
                                    expression(depth - 1));
            case 2 -> "{%s, %s}".formatted(sized(), sized());
            case 3 -> "{%d{%s}}".formatted(1 + random.nextInt(3), sized());
            case 4 ->
                    "%s(%s)"
                            .formatted(
                                    random.nextBoolean() ? "$signed" : "$unsigned",
                                    expression(depth - 1));
            // The simulator extends a signed argument by its sign; 20.8.1 treats it as unsigned.
            case 5 -> "$clog2($unsigned(%s))".formatted(literal());
            default ->
                    "(%s %s %s)"
                            .formatted(
                                    expression(depth - 1),
                                    BINARY.get(random.nextInt(BINARY.size())),
                                    expression(depth - 1));
        };
    }

    private String literal() {
        return random.nextInt(3) == 0 ? Integer.toString(random.nextInt(70_000)) : sized();
    }

    private String sized() {
        int width = 1 + random.nextInt(40);
        long value = random.nextLong() & (1L << width) - 1;
        String sign = random.nextInt(3) == 0 ? "s" : "";
        return switch (random.nextInt(3)) {
            case 0 -> "%d'%sh%x".formatted(width, sign, value);
            case 1 -> "%d'%sb%s".formatted(width, sign, Long.toBinaryString(value));
            default -> "%d'%sd%d".formatted(width, sign, value);
        };
    }
}
