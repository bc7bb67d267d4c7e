package polymetron.ownblock;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import polymetron.expression.Expression;
import polymetron.library.BlockType;
import polymetron.library.Capability;
import polymetron.output.hardware.LogicPorts;
import polymetron.output.hardware.LogicPorts.LogicPort;
import polymetron.text.TextWriter;
import polymetron.verilog.Module;

/**
 * A template for the user's logic: a module with every port that the definition gives it. Lines that leave the chip and are a
 * block's {@code lines} follow their fields already; every other output is tied to 0, one line each, until the user
 * writes logic for it. It is generated once; from then on the file is the user's.
 */
public final class LogicSkeleton {
    private static final String SYNCHRONISED = "synchronised ";

    private final BlockType type;
    private final List<LogicPort> ports;
    private final TextWriter out = TextWriter.indentedBy("    ");

    private LogicSkeleton(BlockType type) {
        this.type = type;
        this.ports = LogicPorts.of(type, Map.of());
    }

    /** Name of the module of a block type for which none is chosen. */
    public static String moduleName(BlockType type) {
        return type.hardware() != null
                ? type.hardware().module()
                : (type.identity().vendor() + "_" + type.identity().name())
                        .toLowerCase(java.util.Locale.ROOT)
                        .replaceAll("[^a-z0-9]+", "_");
    }

    /** Text of the module. */
    public static String of(BlockType type) {
        return new LogicSkeleton(type).write();
    }

    /** Parameters of the block that widths of ports are made of, which the module has as well. */
    public static Set<String> parameters(BlockType type) {
        Set<String> known = new TreeSet<>();
        type.parameters().forEach(each -> known.add(each.name()));
        Set<String> used = new TreeSet<>();
        for (LogicPort port : LogicPorts.of(type, Map.of())) {
            if (!port.width().isEmpty()) {
                used.addAll(Expression.parse(port.width()).names());
            }
        }
        if (type.hardware() != null) {
            used.addAll(type.hardware().parameters().keySet());
        }
        used.retainAll(known);
        return used;
    }

    private String write() {
        out.line("// %s: %s.", type.title(), type.summary());
        out.line("`default_nettype none").blank();
        header();
        Map<String, String> given = linked();
        for (LogicPort port : ports) {
            if (port.way() == Module.Way.OUTPUT) {
                output(port, given.get(port.name()));
            }
        }
        out.close("endmodule").blank().line("`default_nettype wire");
        return out.text();
    }

    private void header() {
        Map<String, String> parameters = new LinkedHashMap<>();
        Set<String> used = parameters(type);
        type.parameters().stream()
                .filter(each -> used.contains(each.name()))
                .forEach(each -> parameters.put(each.name(), each.initial().toString()));
        if (parameters.isEmpty()) {
            out.open("module %s (", moduleName(type));
        } else {
            out.open("module %s #(", moduleName(type));
            int left = parameters.size();
            for (Map.Entry<String, String> each : parameters.entrySet()) {
                left--;
                out.line(
                        "parameter %s = %s%s", each.getKey(), each.getValue(), left > 0 ? "," : "");
            }
            out.between(") (");
        }
        for (int at = 0; at < ports.size(); at++) {
            LogicPort port = ports.get(at);
            if (!port.explains().isEmpty()) {
                out.line("// %s", port.explains().replace('\n', ' '));
            }
            out.line(
                    "%s wire %s%s%s",
                    port.way() == Module.Way.INPUT ? "input " : "output",
                    range(port),
                    port.name(),
                    at + 1 < ports.size() ? "," : "");
        }
        out.between(");");
    }

    private static String range(LogicPort port) {
        String width = port.width().isEmpty() ? Integer.toString(port.bits()) : port.width();
        if (width.equals("1")) {
            return "";
        }
        if (width.matches("\\d+")) {
            return "[%s:0] ".formatted(Long.parseLong(width) - 1);
        }
        return width.matches("\\w+")
                ? "[%s-1:0] ".formatted(width)
                : "[(%s)-1:0] ".formatted(width);
    }

    private void output(LogicPort port, String value) {
        if (value != null && value.startsWith(SYNCHRONISED)) {
            String bits = port.width().isEmpty() ? Integer.toString(port.bits()) : port.width();
            out.line("// What comes from outside follows no clock.");
            out.line(
                    "polymetron_synchroniser #(.BITS(%s)) %s_synchroniser (.clk(%s), .rst(%s),"
                            + " .in(%s), .out(%s));",
                    bits,
                    value.substring(SYNCHRONISED.length()),
                    type.clocks().getFirst().name(),
                    type.resets().getFirst().name(),
                    value.substring(SYNCHRONISED.length()),
                    port.name());
        } else if (value != null) {
            out.line("assign %s = %s;", port.name(), value);
        } else {
            String width = range(port).isEmpty() ? "1'b0" : "0";
            out.line("assign %s = %s; // at rest until there is logic for it", port.name(), width);
        }
    }

    /** Lines of the block and the fields that they show. */
    private Map<String, String> linked() {
        Map<String, String> links = new HashMap<>();
        for (Capability.Lines role : type.provides(Capability.Lines.class)) {
            line(ports)
                    .ifPresent(
                            stem -> {
                                link(links, stem, "", role.output());
                                link(links, stem, "_out", role.output());
                                link(links, stem, "_drive", role.drive());
                                inputs(links, stem, role.input());
                            });
        }
        return links;
    }

    /** The only port on the pins, without the suffix of its direction. */
    private Optional<String> line(List<LogicPort> all) {
        List<String> names = new ArrayList<>();
        type.outward().forEach(each -> each.ports().forEach(port -> names.add(port.name())));
        return names.size() == 1 ? Optional.of(names.getFirst()) : Optional.empty();
    }

    private void link(Map<String, String> links, String stem, String way, String field) {
        if (field != null && has(field.replace('.', '_'))) {
            links.put(stem + way, field.replace('.', '_'));
        }
    }

    private void inputs(Map<String, String> links, String stem, String field) {
        if (field == null) {
            return;
        }
        String in = has(stem + "_in") ? stem + "_in" : stem;
        boolean isInput =
                ports.stream()
                        .anyMatch(each -> each.name().equals(in) && each.way() == Module.Way.INPUT);
        if (isInput && !type.clocks().isEmpty() && !type.resets().isEmpty()) {
            links.put(field.replace('.', '_'), SYNCHRONISED + in);
        }
    }

    private boolean has(String port) {
        return ports.stream().anyMatch(each -> each.name().equals(port));
    }
}
