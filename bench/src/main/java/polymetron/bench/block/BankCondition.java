package polymetron.bench.block;

import java.math.BigInteger;
import java.util.HashMap;
import java.util.Map;
import java.util.Optional;
import polymetron.expression.Expression;
import polymetron.expression.Value;

/** An expression of fields that selects a register or locks a field; it is evaluated again only when one of them changed. */
final class BankCondition {
    /** Finds the field that a reference, {@code REGISTER.FIELD}, names. */
    interface Names {
        Optional<BankField> field(String reference);
    }

    static final BankCondition ALWAYS = new BankCondition(null, Map.of(), true);

    private final Expression expression;
    private final Map<String, BankField> fields;
    private final long[] seen;
    private boolean isTrue;

    private BankCondition(Expression expression, Map<String, BankField> fields, boolean isTrue) {
        this.expression = expression;
        this.fields = fields;
        this.seen = new long[fields.size()];
        this.isTrue = isTrue;
    }

    /**
     * @param expression null for none
     * @param otherwise the outcome where there is no expression
     */
    static BankCondition of(Expression expression, boolean otherwise, Names names) {
        if (expression == null) {
            return otherwise ? ALWAYS : new BankCondition(null, Map.of(), false);
        }
        Map<String, BankField> fields = new HashMap<>();
        for (String name : expression.names()) {
            names.field(name).ifPresent(field -> fields.put(name, field));
        }
        BankCondition condition = new BankCondition(expression, fields, false);
        condition.isTrue = condition.evaluate();
        return condition;
    }

    boolean isTrue() {
        boolean isOld = true;
        int at = 0;
        for (BankField field : fields.values()) {
            long value = field.get();
            isOld &= value == seen[at];
            seen[at++] = value;
        }
        if (!isOld) {
            isTrue = evaluate();
        }
        return isTrue;
    }

    private boolean evaluate() {
        return expression.evaluate(this::value).isTrue();
    }

    /** A field that is not there with these parameters is 0. */
    private Value value(String name) {
        BankField field = fields.get(name);
        long value = field == null ? 0 : field.get();
        return Value.Bits.of(BigInteger.valueOf(value), 64, false);
    }
}
