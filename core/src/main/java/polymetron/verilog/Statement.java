package polymetron.verilog;

import java.util.List;

/** What happens at an edge of the clock. */
public sealed interface Statement {
    /** Stores a value in a variable, or in some of its bits. */
    record Store(Net variable, int high, int low, Expression value) implements Statement {
        public Store {
            if (value.bits() != high - low + 1) {
                throw new IllegalArgumentException(
                        "%s[%s:%s] is given %s bits: %s"
                                .formatted(variable.name(), high, low, value.bits(), value.text()));
            }
        }

        String target() {
            if (high - low + 1 == variable.bits()) {
                return variable.name();
            }
            return high == low
                    ? "%s[%s]".formatted(variable.name(), low)
                    : "%s[%s:%s]".formatted(variable.name(), high, low);
        }
    }

    /** Does one or the other. */
    record If(Expression condition, List<Statement> then, List<Statement> otherwise)
            implements Statement {}

    static Statement store(Net variable, Expression value) {
        return new Store(variable, variable.bits() - 1, 0, value);
    }

    static Statement when(Expression condition, Statement... then) {
        return new If(condition, List.of(then), List.of());
    }
}
