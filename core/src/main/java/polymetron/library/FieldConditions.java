package polymetron.library;

import java.math.BigInteger;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import polymetron.expression.Expression;
import polymetron.expression.ExpressionException;
import polymetron.expression.Value;

/** Conditions of fields that say which of several registers is at an address. */
final class FieldConditions {
    /** More states than these bits have are not tried one by one. */
    private static final int MOST_BITS = 12;

    private FieldConditions() {}

    /**
     * Whether there is no state of the fields in which both registers are there.
     *
     * @param parameters values of the block type's parameters
     */
    static boolean exclude(
            BlockType type, Map<String, Value> parameters, RegisterType one, RegisterType other) {
        if (one.selectedBy() == null || other.selectedBy() == null) {
            return false;
        }
        List<String> names = new ArrayList<>(one.selectedBy().names());
        other.selectedBy().names().stream()
                .filter(name -> !names.contains(name))
                .forEach(names::add);
        List<Integer> widths = names.stream().map(name -> width(type, parameters, name)).toList();
        int bits = widths.stream().mapToInt(Integer::intValue).sum();
        if (bits > MOST_BITS) {
            return false;
        }
        for (int state = 0; state < 1 << bits; state++) {
            Map<String, Value> values = new HashMap<>();
            int low = 0;
            for (int at = 0; at < names.size(); at++) {
                int value = state >>> low & (1 << widths.get(at)) - 1;
                values.put(names.get(at), Value.Bits.of(BigInteger.valueOf(value), 64, false));
                low += widths.get(at);
            }
            if (isTrue(one.selectedBy(), values) && isTrue(other.selectedBy(), values)) {
                return false;
            }
        }
        return true;
    }

    private static boolean isTrue(Expression condition, Map<String, Value> values) {
        try {
            return condition.evaluate(values).isTrue();
        } catch (ExpressionException noValue) {
            return true;
        }
    }

    private static int width(BlockType type, Map<String, Value> parameters, String reference) {
        for (RegisterType register : type.registers()) {
            for (FieldType field : register.fields()) {
                if ((register.name() + "." + field.name()).equals(reference)) {
                    return field.width() == null
                            ? 1
                            : Math.clamp(
                                    field.width().evaluate(parameters).asNumber().longValue(),
                                    1,
                                    MOST_BITS + 1);
                }
            }
        }
        return MOST_BITS + 1;
    }
}
