package polymetron.library;

import java.lang.reflect.RecordComponent;
import java.math.BigInteger;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import polymetron.expression.Expression;
import polymetron.expression.ExpressionException;
import polymetron.expression.Value;
import polymetron.json.DocumentText;

/**
 * Every expression of a definition, to be tried: each has a value with each setting of the parameters, as far as what it
 * belongs to is there.
 */
final class DefinitionExpressions {
    /** Any rate will do: only whether there is a value is asked. */
    private static final double SOME_HERTZ = 1e6;

    private static final Map<String, Value> BESIDES =
            Map.of("CLOCK", new Value.Real(SOME_HERTZ), FieldType.INDEX, Value.Bits.bit(false));

    /** Address bits of some interface, for instance. */
    private static final Value SOME_NUMBER = Value.Bits.of(BigInteger.TEN, 32, false);

    private final Map<String, Value> besides = new HashMap<>(BESIDES);

    /** Conditions of fields; and rates, which have a value only where the clock of a platform allows one. */
    private static final List<String> OTHERS = List.of("selectedBy", "lockedBy", "rates");

    private static final ClassValue<RecordComponent[]> COMPONENTS =
            new ClassValue<>() {
                @Override
                protected RecordComponent[] computeValue(Class<?> type) {
                    RecordComponent[] components = type.getRecordComponents();
                    for (RecordComponent component : components) {
                        component.getAccessor().setAccessible(true);
                    }
                    return components;
                }
            };

    /**
     * An expression, where it stands, and the conditions of what is around it.
     *
     * @param conditions outermost first; each of them is among the expressions as well
     */
    private record Placed(String place, Expression expression, List<Expression> conditions) {}

    private final List<Placed> all = new ArrayList<>();
    private final DocumentText text;

    DefinitionExpressions(BlockType type, DocumentText text) {
        this.text = text;
        HardwareBinding.names(type).forEach(name -> besides.put(name, SOME_NUMBER));
        parts("", type, List.of());
    }

    private void walk(String place, Object part, List<Expression> conditions) {
        switch (part) {
            case null -> {}
            case Expression expression -> all.add(new Placed(place, expression, conditions));
            case List<?> list -> {
                for (int at = 0; at < list.size(); at++) {
                    walk(place + "/" + at, list.get(at), conditions);
                }
            }
            case Map<?, ?> map ->
                    map.forEach((key, each) -> walk(place + "/" + key, each, conditions));
            case Capability capability ->
                    parts(place + "/" + Capability.word(capability), capability, conditions);
            case Record record -> parts(place, record, conditions);
            default -> {}
        }
    }

    private void parts(String place, Object record, List<Expression> around) {
        List<Expression> conditions = around;
        for (RecordComponent component : COMPONENTS.get(record.getClass())) {
            if (component.getName().equals("when")
                    && part(record, component) instanceof Expression when) {
                all.add(new Placed(place + "/when", when, around));
                conditions = new ArrayList<>(around);
                conditions.add(when);
            }
        }
        for (RecordComponent component : COMPONENTS.get(record.getClass())) {
            if (!component.getName().equals("when") && !OTHERS.contains(component.getName())) {
                walk(place + "/" + component.getName(), part(record, component), conditions);
            }
        }
    }

    private static Object part(Object record, RecordComponent component) {
        try {
            return component.getAccessor().invoke(record);
        } catch (ReflectiveOperationException impossible) {
            throw new IllegalStateException(impossible);
        }
    }

    /**
     * @throws polymetron.json.DocumentException when one has no value
     */
    void check(ParameterSettings.Setting setting) {
        for (Placed each : all) {
            boolean isNew = setting.chosen().isEmpty() || !each.expression().names().isEmpty();
            if (isNew && isThere(each, setting)) {
                value(each, setting);
            }
        }
    }

    private static boolean isThere(Placed each, ParameterSettings.Setting setting) {
        for (Expression condition : each.conditions()) {
            if (!condition.evaluate(setting.values()).isTrue()) {
                return false;
            }
        }
        return true;
    }

    private void value(Placed each, ParameterSettings.Setting setting) {
        Value value;
        try {
            value =
                    each.expression()
                            .evaluate(
                                    name -> setting.values().getOrDefault(name, besides.get(name)));
        } catch (ExpressionException wrong) {
            throw text.wrong(
                    each.place(),
                    "%s has no value%s: %s"
                            .formatted(each.expression(), setting.words(), wrong.getMessage()));
        }
        boolean mayBeText =
                each.place().endsWith("/direction")
                        || each.place().startsWith("/hardware/parameters/");
        if (value instanceof Value.Text && !mayBeText) {
            throw text.wrong(
                    each.place(),
                    "%s is the text '%s'%s; a number is needed"
                            .formatted(each.expression(), value, setting.words()));
        }
    }
}
