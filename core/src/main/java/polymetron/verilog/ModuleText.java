package polymetron.verilog;

import java.util.ArrayList;
import java.util.List;
import polymetron.text.TextWriter;

/** Writes a module as Verilog-2005 (IEEE 1364-2005). */
final class ModuleText {
    private final Module module;

    ModuleText(Module module) {
        this.module = module;
    }

    /** The file of the module. */
    String text() {
        TextWriter out = TextWriter.indentedBy("    ");
        module.comments().forEach(line -> out.line(("// " + line).stripTrailing()));
        out.line("`default_nettype none").blank();
        out.open("module " + module.name() + " (");
        List<List<String>> rows = new ArrayList<>();
        List<Module.Port> all = module.ports();
        for (int at = 0; at < all.size(); at++) {
            Module.Port port = all.get(at);
            boolean isVariable = module.variables().containsKey(port.net().name());
            rows.add(
                    List.of(
                            port.way().toString(),
                            isVariable ? "reg" : "wire",
                            port.net().range()
                                    + port.net().name()
                                    + (at < all.size() - 1 ? "," : "")));
        }
        out.columns(rows);
        out.between(");");
        module.wires().values().forEach(net -> out.line("wire " + net.range() + net.name() + ";"));
        module.variables().values().stream()
                .filter(net -> !isPort(net))
                .forEach(net -> out.line("reg " + net.range() + net.name() + ";"));
        for (Object item : module.items()) {
            out.blank();
            item(out, item);
        }
        List<Expression> unread = module.unread();
        if (!unread.isEmpty()) {
            out.blank();
            item(
                    out,
                    new Module.Unused(
                            "unused_nets",
                            Expression.concat(unread.toArray(Expression[]::new)).any()));
        }
        out.blank().close("endmodule").blank().line("`default_nettype wire");
        return squeezed(out.text());
    }

    private boolean isPort(Net net) {
        return module.ports().stream().anyMatch(port -> port.net().equals(net));
    }

    /** Assignments that follow each other need no line between them. */
    private static String squeezed(String text) {
        return text.replaceAll("(assign [^\n]*;)\n\n(?=\\s*assign )", "$1\n");
    }

    private static void item(TextWriter out, Object item) {
        switch (item) {
            case Module.Assignment assignment ->
                    out.line(
                            "assign "
                                    + assignment.net().name()
                                    + " = "
                                    + assignment.value().text()
                                    + ";");
            // A simulator would work it out again and again.
            case Module.Unused unused -> {
                out.line("`ifdef VERILATOR");
                out.line("wire " + unused.name() + " = " + unused.value().text() + ";");
                out.line("`endif");
            }
            case Module.Instance instance -> instance(out, instance);
            case Module.Clocked clocked -> {
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

    private static void instance(TextWriter out, Module.Instance instance) {
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
