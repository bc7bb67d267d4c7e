package polymetron.ownblock;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import polymetron.bus.Protocol;
import polymetron.hdl.HdlModule;
import polymetron.hdl.HdlPort;
import polymetron.hdl.HdlReader;
import polymetron.library.HardwareBinding;
import polymetron.output.hardware.ProtocolSignals;
import polymetron.text.TextWriter;
import polymetron.verilog.Module;

/** A module around a user's one, with the ports that the definition requires. */
final class FittedModule {

    private final HdlModule module;
    private final List<String> ports = new ArrayList<>();
    private final Map<String, String> parameters = new LinkedHashMap<>();
    private final Map<String, Integer> addressBits = new TreeMap<>();
    private final Map<String, String> connections = new LinkedHashMap<>();
    private final List<String> assigned = new ArrayList<>();

    FittedModule(HdlModule module) {
        this.module = module;
    }

    String name() {
        return module.name().replaceAll("\\W", "_") + "_fitted";
    }

    /** Parameters that say how many address bits a bus interface has. */
    Map<String, Integer> addressBits() {
        return addressBits;
    }

    /** In VHDL it is a whole number with a sign, whatever it is overridden with. */
    void parameter(String name, String value) {
        parameters.put(name, value);
    }

    void add(String way, String name, String range) {
        ports.add("%-6s wire %s%s".formatted(way, range, name));
    }

    /** Connects a port of the module, as wide as it is. */
    void connect(HdlPort port, String name, boolean inverted) {
        String range =
                port.width().equals("1") ? "" : "[(%s)-1:0] ".formatted(portable(port.width()));
        add(port.way() == Module.Way.INPUT ? "input" : "output", name, range);
        connections.put(port.name(), inverted ? "~" + name : name);
    }

    /** A width that names only what this module has as well. */
    private String portable(String width) {
        boolean isKnown =
                polymetron.expression.Expression.parse(width.replace("::", ".")).names().stream()
                        .allMatch(parameters::containsKey);
        if (isKnown) {
            return width;
        }
        HdlPort as = new HdlPort("", Module.Way.INPUT, width, false, 0, "");
        return Integer.toString(module.bits(as, Map.of()));
    }

    /** An input gets zeros, an output is left. */
    void tie(HdlPort port) {
        boolean isInput = port.way() == Module.Way.INPUT;
        connections.put(port.name(), isInput ? "%s'd0".formatted(module.bits(port, Map.of())) : "");
    }

    void leave(HdlPort port) {
        connections.put(port.name(), "");
    }

    void alwaysReady(String stream, boolean isSource) {
        String name = stream + "_tready";
        add(isSource ? "input" : "output", name, "");
        if (!isSource) {
            assigned.add("assign %s = 1'b1;".formatted(name));
        }
    }

    /**
     * A signal of a bus interface.
     *
     * @param port the module's; null where it has none
     */
    void bus(
            String name,
            Protocol protocol,
            String signal,
            boolean goesIn,
            int address,
            int data,
            HdlPort port) {
        String outside = name + "_" + signal;
        boolean isAddress = ProtocolSignals.isAddress(protocol, signal);
        int bits = ProtocolSignals.bits(protocol, signal, address, data);
        String parameter = HardwareBinding.addressBits(name);
        if (isAddress) {
            addressBits.put(parameter, address);
        }
        String range =
                isAddress
                        ? "[%s-1:0] ".formatted(parameter)
                        : bits == 1 ? "" : "[%s:0] ".formatted(bits - 1);
        add(goesIn ? "input" : "output", outside, range);
        if (port == null) {
            if (!goesIn) {
                assigned.add("assign %s = %s;".formatted(outside, usual(name, signal, bits, data)));
            }
            return;
        }
        int inside = module.bits(port, Map.of());
        if (inside == bits && !isAddress) {
            connections.put(port.name(), outside);
        } else if (isAddress) {
            connections.put(port.name(), wired(port.name(), outside, inside, goesIn));
        } else if (goesIn) {
            connections.put(
                    port.name(),
                    inside < bits
                            ? "%s[%s:0]".formatted(outside, inside - 1)
                            : "{%s'd0, %s}".formatted(inside - bits, outside));
        } else {
            connections.put(port.name(), wired(port.name(), outside, inside, false));
        }
    }

    /** What a signal is that the module does not drive: whole words one at a time, always ready, no error. */
    private static String usual(String name, String signal, int bits, int data) {
        return switch (signal) {
            case "wstrb", "sel", "pstrb", "pready", "hreadyout", "bready", "rready", "hsel" ->
                    "{%s{1'b1}}".formatted(bits);
            // Bytes of a transfer as a power of two (IHI 0022, A3.4.1; IHI 0033, 3.4).
            case "awsize", "arsize", "hsize" ->
                    "%s'd%s".formatted(bits, Integer.numberOfTrailingZeros(data / 8));
            case "awburst", "arburst" -> "%s'd1".formatted(bits);
            // A manager that drives no HREADY hands on what it gets.
            case "hready" -> name + "_hreadyout";
            default -> "%s'd0".formatted(bits);
        };
    }

    /** A net of the width that the module has, cut or filled with zeros by the assignment. */
    private String wired(String port, String outside, int bits, boolean goesIn) {
        String net = "its_" + port.replaceAll("\\W", "_");
        assigned.add("wire [%s:0] %s;".formatted(bits - 1, net));
        assigned.add("/* verilator lint_off WIDTH */");
        assigned.add(
                goesIn
                        ? "assign %s = %s;".formatted(net, outside)
                        : "assign %s = %s;".formatted(outside, net));
        assigned.add("/* verilator lint_on WIDTH */");
        return net;
    }

    String text() {
        TextWriter out = TextWriter.indentedBy("    ");
        out.line(
                "// Module %s with the ports that the definition of the block asks for.",
                module.name());
        out.line("`default_nettype none").blank();
        Map<String, String> all = new LinkedHashMap<>(parameters);
        addressBits.forEach((parameter, bits) -> all.put(parameter, Integer.toString(bits)));
        if (all.isEmpty()) {
            out.open("module %s (", name());
        } else {
            out.open("module %s #(", name());
            int left = all.size();
            for (Map.Entry<String, String> each : all.entrySet()) {
                left--;
                boolean isGeneric =
                        HdlReader.isVhdl(module.file()) && parameters.containsKey(each.getKey());
                out.line(
                        "parameter %s%s = %s%s",
                        isGeneric ? "integer " : "",
                        each.getKey(),
                        each.getValue(),
                        left > 0 ? "," : "");
            }
            out.between(") (");
        }
        for (int at = 0; at < ports.size(); at++) {
            out.line("%s%s", ports.get(at), at + 1 < ports.size() ? "," : "");
        }
        out.between(");");
        assigned.forEach(line -> out.line("%s", line));
        String given = "";
        if (!parameters.isEmpty()) {
            StringBuilder values = new StringBuilder();
            parameters
                    .keySet()
                    .forEach(
                            name ->
                                    values.append(values.isEmpty() ? "" : ", ")
                                            .append(".%s(%s)".formatted(name, name)));
            given = "#(%s) ".formatted(values);
        }
        String inner = module.name().matches("\\w+") ? module.name() : "\\" + module.name() + " ";
        out.open("%s %swrapped (", inner, given);
        int left = connections.size();
        for (Map.Entry<String, String> each : connections.entrySet()) {
            left--;
            String port =
                    each.getKey().matches("\\w+") ? each.getKey() : "\\" + each.getKey() + " ";
            out.line(".%s(%s)%s", port, each.getValue(), left > 0 ? "," : "");
        }
        out.close(");");
        out.close("endmodule").blank().line("`default_nettype wire");
        return out.text();
    }
}
