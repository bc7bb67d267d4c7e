package polymetron.verilog;

import java.math.BigInteger;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import polymetron.expression.Value;

/**
 * Name and ports of a hand-written module of the library, out of its text: one port a line, declared in the port list
 * (IEEE 1364-2005, 12.3.4). Ports that only a simulation has are left out.
 *
 * @param defaults expressions of its parameters, where nothing else is given
 * @param ports in their order
 */
public record ModuleHeader(String name, Map<String, String> defaults, List<Port> ports) {
    private static final Pattern MODULE = Pattern.compile("\\bmodule\\s+(\\w+)");
    private static final Pattern PARAMETER =
            Pattern.compile("^\\s*parameter\\s+(?:\\[.*\\]\\s*)?(\\w+)\\s*=\\s*(.*?),?\\s*$");
    private static final Pattern PORT =
            Pattern.compile(
                    "^\\s*(input|output|inout)\\s+(?:wire|reg)?\\s*(?:\\[(.+):0\\])?\\s*(\\w+)\\s*,?\\s*$");

    /**
     * A port.
     *
     * @param highest number of its highest bit, as an expression of the module's parameters; null for a single bit
     */
    public record Port(Module.Way way, String name, String highest) {}

    /**
     * How many bits a port has.
     *
     * @param parameters values of parameters; those that are not among them have their defaults
     */
    public int bits(Port port, Map<String, Value> parameters) {
        return port.highest() == null ? 1 : 1 + value(port.highest(), parameters).intValueExact();
    }

    private BigInteger value(String text, Map<String, Value> parameters) {
        return polymetron.expression.Expression.parse(text)
                .evaluate(
                        name ->
                                parameters.containsKey(name)
                                        ? parameters.get(name)
                                        : byDefault(name, parameters))
                .asNumber();
    }

    private Value byDefault(String name, Map<String, Value> parameters) {
        String text = defaults.get(name);
        return text == null ? null : Value.Bits.of(value(text, parameters), 32, true);
    }

    /**
     * @throws IllegalArgumentException when the text has no module
     */
    public static ModuleHeader of(String text) {
        Matcher name = MODULE.matcher(text);
        if (!name.find()) {
            throw new IllegalArgumentException("the text has no module");
        }
        List<Port> ports = new ArrayList<>();
        Map<String, String> defaults = new TreeMap<>();
        boolean simulated = false;
        for (String line : text.substring(name.end()).lines().toList()) {
            if (line.startsWith("`ifdef")) {
                simulated = true;
            } else if (line.startsWith("`endif")) {
                simulated = false;
            } else if (line.startsWith(");")) {
                break;
            }
            Matcher parameter = PARAMETER.matcher(line);
            if (parameter.matches()) {
                defaults.put(parameter.group(1), parameter.group(2));
            }
            Matcher port = PORT.matcher(line);
            if (!simulated && port.matches()) {
                ports.add(new Port(way(port.group(1)), port.group(3), port.group(2)));
            }
        }
        return new ModuleHeader(name.group(1), Map.copyOf(defaults), List.copyOf(ports));
    }

    private static Module.Way way(String word) {
        return switch (word) {
            case "input" -> Module.Way.INPUT;
            case "output" -> Module.Way.OUTPUT;
            default -> Module.Way.INOUT;
        };
    }

    public Optional<Port> port(String port) {
        return ports.stream().filter(each -> each.name().equals(port)).findFirst();
    }
}
