package polymetron.hdl;

import java.math.BigInteger;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import polymetron.expression.Expression;
import polymetron.expression.ExpressionException;
import polymetron.expression.Value;
import polymetron.verilog.ModuleHeader;

/**
 * A module as its declaration says it is.
 *
 * @param constants expressions of names of packages, each as {@code package.NAME}, and of those that are imported
 */
public record HdlModule(
        String name,
        String file,
        int line,
        List<HdlParameter> parameters,
        List<HdlPort> ports,
        Map<String, String> constants) {
    private static final int WIDEST = 1 << 20;
    private static final int DEEPEST = 200;

    public HdlModule {
        parameters = List.copyOf(parameters);
        ports = List.copyOf(ports);
        constants = Map.copyOf(constants);
    }

    public Optional<HdlPort> port(String port) {
        return ports.stream().filter(each -> each.name().equals(port)).findFirst();
    }

    /**
     * Bits of a port.
     *
     * @param chosen values of parameters; the others have their defaults
     * @throws IllegalArgumentException when its width cannot be worked out; the message says why
     */
    public int bits(HdlPort port, Map<String, Value> chosen) {
        BigInteger bits;
        try {
            bits = new Names(chosen).evaluate(port.width()).asNumber();
        } catch (ExpressionException | ArithmeticException wrong) {
            throw new IllegalArgumentException(
                    "the width %s has no value: %s".formatted(port.width(), wrong.getMessage()));
        }
        if (bits.signum() <= 0 || bits.compareTo(BigInteger.valueOf(WIDEST)) > 0) {
            throw new IllegalArgumentException(
                    "the width %s is %s bits; 1 to %s are possible"
                            .formatted(port.width(), bits, WIDEST));
        }
        return bits.intValueExact();
    }

    /** The same as what blocks are built with; parameters and ports as the text says them. */
    public ModuleHeader header() {
        Map<String, String> defaults = new TreeMap<>();
        for (HdlParameter each : parameters) {
            if (each.value() != null) {
                defaults.put(each.name(), each.value());
            }
        }
        return new ModuleHeader(
                name,
                defaults,
                ports.stream()
                        .map(
                                port ->
                                        new ModuleHeader.Port(
                                                port.way(),
                                                port.name(),
                                                port.width().equals("1")
                                                        ? null
                                                        : "(%s) - 1".formatted(port.width())))
                        .toList());
    }

    /** The value of a parameter where nothing else is chosen; empty where it has none that can be worked out. */
    public Optional<Value> initial(HdlParameter parameter) {
        if (parameter.value() == null) {
            return Optional.empty();
        }
        try {
            return Optional.of(new Names(Map.of()).evaluate(parameter.value()));
        } catch (ExpressionException | ArithmeticException | IllegalArgumentException wrong) {
            return Optional.empty();
        }
    }

    /** Whole numbers of VHDL have a sign (IEEE 1076-2008, 5.2.3), whatever a value was given as. */
    private static Value signed(Value value) {
        return value instanceof Value.Bits
                ? Value.Bits.of(value.asNumber(), Integer.SIZE, true)
                : value;
    }

    /** Names in expressions, each worked out when it is met; one that leads back to itself is said. */
    private final class Names {
        private final Map<String, Value> chosen;
        private final Set<String> open = new HashSet<>();
        private final Map<String, Value> known = new HashMap<>();

        private Names(Map<String, Value> chosen) {
            this.chosen = chosen;
        }

        private Value evaluate(String text) {
            return Expression.parse(text.replace("::", ".")).evaluate(this::value);
        }

        private Value value(String name) {
            Value given = chosen.get(name);
            Optional<HdlParameter> own =
                    parameters.stream().filter(each -> each.name().equals(name)).findFirst();
            if (given != null && own.filter(HdlParameter::isLocal).isEmpty()) {
                return HdlReader.isVhdl(file) ? signed(given) : given;
            }
            String text = own.map(HdlParameter::value).orElse(constants.get(name));
            if (text == null) {
                return null;
            }
            if (known.containsKey(name)) {
                return known.get(name);
            }
            if (!open.add(name)) {
                throw new IllegalArgumentException("%s refers to itself".formatted(name));
            }
            if (open.size() > DEEPEST) {
                throw new IllegalArgumentException(
                        "more than %s names refer to each other".formatted(DEEPEST));
            }
            try {
                Value value = evaluate(text);
                known.put(name, value);
                return value;
            } finally {
                open.remove(name);
            }
        }
    }
}
