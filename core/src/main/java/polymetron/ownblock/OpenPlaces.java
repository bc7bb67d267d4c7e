package polymetron.ownblock;

import java.math.BigInteger;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import polymetron.expression.Expression;
import polymetron.expression.ExpressionException;
import polymetron.expression.Value;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ObjectNode;

/**
 * Places that a definition leaves open: a register without an offset comes behind the one before it, a field without a lowest
 * bit behind the field before it. Places that are written stay as they are; where one follows from parameters, what comes
 * behind it is placed as the defaults of the parameters say.
 */
final class OpenPlaces {
    private static final int WORD = 32;
    private static final int BYTES = 4;

    private final Map<String, Value> parameters;

    private OpenPlaces(Map<String, Value> parameters) {
        this.parameters = parameters;
    }

    /** A copy with every place filled that is open and can be. */
    static ObjectNode filled(ObjectNode definition) {
        ObjectNode copy = definition.deepCopy();
        new OpenPlaces(defaults(copy.path("parameters"))).registers(copy.path("registers"));
        return copy;
    }

    /** Values of the parameters where nothing else is chosen; those that have none yet are left out. */
    private static Map<String, Value> defaults(JsonNode parameters) {
        Map<String, Value> values = new java.util.HashMap<>();
        for (JsonNode parameter : parameters) {
            String name = parameter.path("name").asString("");
            Value value = value(parameter.path("initial"), values);
            if (value != null) {
                values.put(name, value);
            }
        }
        return values;
    }

    private static Value value(JsonNode node, Map<String, Value> parameters) {
        if (!node.isString() && !node.isIntegralNumber()) {
            return null;
        }
        try {
            return Expression.parse(node.asString()).evaluate(parameters);
        } catch (ExpressionException | ArithmeticException wrong) {
            // The check of the definition says what is wrong, and where.
            return null;
        }
    }

    private long number(JsonNode node, long otherwise) {
        Value value = node.isMissingNode() || node.isNull() ? null : value(node, parameters);
        if (value == null || value instanceof Value.Text) {
            return otherwise;
        }
        BigInteger number = value.asNumber();
        return number.bitLength() < WORD ? number.longValue() : otherwise;
    }

    private void registers(JsonNode registers) {
        List<ObjectNode> all = new ArrayList<>();
        registers.forEach(
                each -> {
                    if (each instanceof ObjectNode register) {
                        all.add(register);
                    }
                });
        long next = 0;
        for (ObjectNode register : all) {
            long bytes = Math.max(1, number(register.path("width"), WORD) / 8);
            if (isOpen(register, "offset")) {
                // A register of 64 bits begins where one can.
                long align = Math.max(BYTES, bytes);
                register.put("offset", (next + align - 1) / align * align);
            }
            long stride = number(register.path("stride"), bytes);
            long count = Math.max(1, number(register.path("count"), 1));
            long offset = number(register.path("offset"), next);
            next = Math.max(next, offset + (count - 1) * stride + bytes);
            fields(register.path("fields"));
        }
    }

    private void fields(JsonNode fields) {
        long next = 0;
        for (JsonNode each : fields) {
            if (each instanceof ObjectNode field) {
                if (isOpen(field, "lowBit")) {
                    field.put("lowBit", next);
                }
                next = number(field.path("lowBit"), next) + number(field.path("width"), 1);
            }
        }
    }

    private static boolean isOpen(ObjectNode node, String key) {
        JsonNode value = node.path(key);
        return value.isMissingNode()
                || value.isNull()
                || value.isString() && value.asString().isBlank();
    }
}
