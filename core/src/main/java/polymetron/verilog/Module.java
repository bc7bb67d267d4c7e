package polymetron.verilog;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import polymetron.text.TextWriter;

/**
 * A module of Verilog-2005 while it is built: ports, nets, assignments, instances and what happens at the clock. The text
 * comes from here only.
 */
public final class Module {
    /** Which way a port goes. */
    public enum Way {
        INPUT("input"),
        OUTPUT("output"),
        INOUT("inout");

        private final String word;

        Way(String word) {
            this.word = word;
        }
    }

    /** A port of the module. */
    public record Port(Way way, Net net) {}

    /** A net and what it always is; in the order of the module. */
    record Assignment(Net net, Expression value) {}

    /**
     * An instance of another module.
     *
     * @param inputs expressions by the names of input ports
     * @param outputs nets by the names of output ports; null leaves one open
     */
    record Instance(
            String module,
            String name,
            Map<String, String> parameters,
            Map<String, Expression> inputs,
            Map<String, Net> outputs) {}

    /** Nets that are not needed, or not all of them, named as such for a checker of unused nets. */
    record Unused(String name, Expression value) {}

    /** Variables, what they are after reset, and what happens else. */
    record Clocked(Net clock, Net reset, List<Statement> atReset, List<Statement> otherwise) {}

    private final String name;
    private final List<String> comments = new ArrayList<>();
    private final Map<String, Port> ports = new LinkedHashMap<>();
    private final Map<String, Net> wires = new LinkedHashMap<>();
    private final Map<String, Net> variables = new LinkedHashMap<>();
    private final List<Object> items = new ArrayList<>();

    public Module(String name) {
        this.name = name;
    }

    public String name() {
        return name;
    }

    /** A line of what the file says at its head. */
    public Module comment(String line) {
        comments.add(line);
        return this;
    }

    public Net input(String net, int bits) {
        return port(Way.INPUT, net, bits);
    }

    public Net output(String net, int bits) {
        return port(Way.OUTPUT, net, bits);
    }

    /** An output that the clock changes. */
    public Net outputVariable(String net, int bits) {
        Net made = output(net, bits);
        variables.put(net, made);
        return made;
    }

    public Net inout(String net, int bits) {
        return port(Way.INOUT, net, bits);
    }

    private Net port(Way way, String net, int bits) {
        Net made = new Net(net, bits);
        free(net);
        ports.put(net, new Port(way, made));
        return made;
    }

    public Net wire(String net, int bits) {
        Net made = new Net(net, bits);
        free(net);
        wires.put(net, made);
        return made;
    }

    /** A variable that the clock changes. */
    public Net variable(String net, int bits) {
        Net made = new Net(net, bits);
        free(net);
        variables.put(net, made);
        return made;
    }

    private void free(String net) {
        if (ports.containsKey(net) || wires.containsKey(net) || variables.containsKey(net)) {
            throw new IllegalArgumentException("%s has %s twice".formatted(name, net));
        }
    }

    public void assign(Net net, Expression value) {
        if (net.bits() != value.bits()) {
            throw new IllegalArgumentException(
                    "%s: %s has %s bits and is given %s: %s"
                            .formatted(name, net.name(), net.bits(), value.bits(), value.text()));
        }
        items.add(new Assignment(net, value));
    }

    /** A wire that always has a value. */
    public Net wire(String net, Expression value) {
        Net made = wire(net, value.bits());
        assign(made, value);
        return made;
    }

    public void instance(
            String module,
            String instance,
            Map<String, String> parameters,
            Map<String, Expression> inputs,
            Map<String, Net> outputs) {
        items.add(
                new Instance(
                        module,
                        instance,
                        new LinkedHashMap<>(parameters),
                        new LinkedHashMap<>(inputs),
                        new LinkedHashMap<>(outputs)));
    }

    /**
     * What happens at the rising edge of a clock.
     *
     * @param reset while it is 1, only the first statements happen
     */
    public void clocked(Net clock, Net reset, List<Statement> atReset, List<Statement> otherwise) {
        items.add(new Clocked(clock, reset, List.copyOf(atReset), List.copyOf(otherwise)));
    }

    /** Says that nets, or some of their bits, are not needed. */
    public void unused(String what, List<Expression> nets) {
        items.add(
                new Unused(
                        "unused_" + what,
                        Expression.concat(nets.toArray(Expression[]::new)).any()));
    }

    public List<Port> ports() {
        return List.copyOf(ports.values());
    }

    Map<String, Net> wires() {
        return wires;
    }

    Map<String, Net> variables() {
        return variables;
    }

    List<Object> items() {
        return items;
    }

    /** Instances of other modules by their names, in their order. */
    public Map<String, String> instances() {
        Map<String, String> all = new LinkedHashMap<>();
        for (Object item : items) {
            if (item instanceof Instance instance) {
                all.put(instance.name(), instance.module());
            }
        }
        return all;
    }

    /** Modules that it has instances of, each once, in their order. */
    public List<String> uses() {
        return items.stream()
                .filter(Instance.class::isInstance)
                .map(item -> ((Instance) item).module())
                .distinct()
                .toList();
    }

    /** Names of the nets that it reads. */
    public List<String> reads() {
        List<String> read = new ArrayList<>();
        for (Object item : items) {
            switch (item) {
                case Assignment assignment -> read.addAll(assignment.value().reads());
                case Unused unused -> read.addAll(unused.value().reads());
                case Instance instance ->
                        instance.inputs().values().forEach(each -> read.addAll(each.reads()));
                case Clocked clocked -> {
                    read.add(clocked.clock().name());
                    if (!clocked.atReset().isEmpty()) {
                        read.add(clocked.reset().name());
                    }
                    reads(clocked.atReset(), read);
                    reads(clocked.otherwise(), read);
                }
                default -> throw new IllegalStateException(item.toString());
            }
        }
        return read;
    }

    private static void reads(List<Statement> statements, List<String> read) {
        for (Statement statement : statements) {
            switch (statement) {
                case Statement.Store store -> read.addAll(store.value().reads());
                case Statement.If choice -> {
                    read.addAll(choice.condition().reads());
                    reads(choice.then(), read);
                    reads(choice.otherwise(), read);
                }
            }
        }
    }

    // --- text

    /** The file of the module. */
    public String text() {
        TextWriter out = TextWriter.indentedBy("    ");
        comments.forEach(line -> out.line(("// " + line).stripTrailing()));
        out.line("`default_nettype none").blank();
        out.open("module " + name + " (");
        List<List<String>> rows = new ArrayList<>();
        List<Port> all = ports();
        for (int at = 0; at < all.size(); at++) {
            Port port = all.get(at);
            boolean isVariable = variables.containsKey(port.net().name());
            rows.add(
                    List.of(
                            port.way().word,
                            isVariable ? "reg" : "wire",
                            port.net().range()
                                    + port.net().name()
                                    + (at < all.size() - 1 ? "," : "")));
        }
        out.columns(rows);
        out.between(");");
        wires.values().forEach(net -> out.line("wire " + net.range() + net.name() + ";"));
        variables.values().stream()
                .filter(net -> !ports.containsKey(net.name()))
                .forEach(net -> out.line("reg " + net.range() + net.name() + ";"));
        for (Object item : items) {
            out.blank();
            item(out, item);
        }
        out.blank().close("endmodule").blank().line("`default_nettype wire");
        return squeezed(out.text());
    }

    /** Assignments that follow each other need no line between them. */
    private static String squeezed(String text) {
        return text.replaceAll("(assign [^\n]*;)\n\n(?=\\s*assign )", "$1\n");
    }

    private static void item(TextWriter out, Object item) {
        switch (item) {
            case Assignment assignment ->
                    out.line(
                            "assign "
                                    + assignment.net().name()
                                    + " = "
                                    + assignment.value().text()
                                    + ";");
            // A simulator would work it out again and again.
            case Unused unused -> {
                out.line("`ifdef VERILATOR");
                out.line("wire " + unused.name() + " = " + unused.value().text() + ";");
                out.line("`endif");
            }
            case Instance instance -> instance(out, instance);
            case Clocked clocked -> {
                out.open("always @(posedge " + clocked.clock().name() + ") begin");
                if (clocked.atReset().isEmpty()) {
                    statements(out, clocked.otherwise());
                } else {
                    out.open("if (" + clocked.reset().name() + ") begin");
                    statements(out, clocked.atReset());
                    out.between("end else begin");
                    statements(out, clocked.otherwise());
                    out.close("end");
                }
                out.close("end");
            }
            default -> throw new IllegalStateException(item.toString());
        }
    }

    private static void instance(TextWriter out, Instance instance) {
        if (instance.parameters().isEmpty()) {
            out.open(instance.module() + " " + instance.name() + " (");
        } else {
            out.open(instance.module() + " #(");
            List<String> parameters = new ArrayList<>();
            instance.parameters()
                    .forEach((name, value) -> parameters.add("." + name + "(" + value + ")"));
            commas(out, parameters);
            out.between(") " + instance.name() + " (");
        }
        List<String> ports = new ArrayList<>();
        instance.inputs()
                .forEach((port, value) -> ports.add("." + port + "(" + value.text() + ")"));
        instance.outputs()
                .forEach(
                        (port, net) ->
                                ports.add(
                                        "." + port + "(" + (net == null ? "" : net.name()) + ")"));
        commas(out, ports);
        out.close(");");
    }

    private static void commas(TextWriter out, List<String> parts) {
        for (int at = 0; at < parts.size(); at++) {
            out.line(parts.get(at) + (at < parts.size() - 1 ? "," : ""));
        }
    }

    private static void statements(TextWriter out, List<Statement> statements) {
        for (Statement statement : statements) {
            switch (statement) {
                case Statement.Store store ->
                        out.line(store.target() + " <= " + store.value().text() + ";");
                case Statement.If choice -> {
                    out.open("if (" + choice.condition().text() + ") begin");
                    statements(out, choice.then());
                    if (!choice.otherwise().isEmpty()) {
                        out.between("end else begin");
                        statements(out, choice.otherwise());
                    }
                    out.close("end");
                }
            }
        }
    }
}
