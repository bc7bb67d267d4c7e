package polymetron.expression;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.math.BigInteger;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

final class ExpressionTest {
    private static final Map<String, Value> SCOPE =
            Map.of(
                    "WIDTH",
                    Value.Bits.of(BigInteger.valueOf(18), 64, true),
                    "MODE",
                    new Value.Text("fast"));

    @ParameterizedTest
    @CsvSource(
            delimiter = ';',
            value = {
                "(WIDTH + 31) / 32; 1",
                "$clog2(8192 * 32 / 8); 15",
                "MODE == \"fast\" ? 4 : 0; 4",
                "MODE == \"none\" ? 4 : 0; 0",
                "2 ** 10; 1024",
                "-7 / 2; -3",
                "{4'hA, 4'h5}; 165",
                "&4'hF + 1'b0; 1",
            })
    void hasTheValue(String source, String value) {
        assertThat(Expression.parse(source).evaluate(SCOPE).asNumber()).hasToString(value);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = ';',
            value = {
                "1 +; expected a value, found the end",
                "(1; expected ')', found the end",
                "1 ? 2; expected ':'",
                "3 $ 4; does not belong",
                "$random(1); is not known here",
                "8'hxz; unknown bits",
                "99999999'h1; a width lies between",
            })
    void saysWhereItIsWrong(String source, String message) {
        assertThatThrownBy(() -> Expression.parse(source))
                .isInstanceOf(ExpressionException.class)
                .hasMessageContaining(message);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = ';',
            value = {
                "1 / 0; division by zero",
                "0 ** -1; divides by zero",
                "HEIGHT + 1; no parameter named HEIGHT",
                "MODE + 1; is a string",
                "{70000{1'b1}}; bits wide",
                "{0{1'b1}}; cannot repeat",
                "{1, 2'b1}; needs a width",
            })
    void hasNoValue(String source, String message) {
        Expression expression = Expression.parse(source);
        assertThatThrownBy(() -> expression.evaluate(SCOPE))
                .isInstanceOf(ExpressionException.class)
                .hasMessageContaining(message);
    }

    @Test
    void cannotBeMadeToOverflowTheStack() {
        assertThatThrownBy(() -> Expression.parse("(".repeat(900) + "1" + ")".repeat(900)))
                .isInstanceOf(ExpressionException.class)
                .hasMessageContaining("nested");
        assertThatThrownBy(() -> Expression.parse("-".repeat(1000) + "1"))
                .isInstanceOf(ExpressionException.class);
        assertThatThrownBy(() -> Expression.parse("1".repeat(5000)))
                .isInstanceOf(ExpressionException.class)
                .hasMessageContaining("characters");
    }
}
