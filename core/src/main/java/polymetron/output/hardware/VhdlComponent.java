package polymetron.output.hardware;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.regex.Pattern;
import polymetron.text.TextWriter;
import polymetron.verilog.Module;

/**
 * The top level for a VHDL design around it: a package with its component, and an instantiation to copy (IEEE 1076-2008). A
 * name that VHDL does not have is written as an extended identifier, which is the same name.
 */
final class VhdlComponent {
    private static final Pattern BASIC = Pattern.compile("[a-z][a-z0-9]*(_[a-z0-9]+)*");

    private VhdlComponent() {}

    static String of(Module top, List<String> head) {
        TextWriter out = TextWriter.indentedBy("    ");
        head.forEach(line -> out.line(("-- " + line).stripTrailing()));
        out.line("library ieee;").line("use ieee.std_logic_1164.all;").blank();
        String name = name(top.name());
        out.open("package %s is", name(top.name() + "_component"));
        out.open("component %s is", name);
        out.open("port (");
        List<List<String>> rows = new ArrayList<>();
        List<Module.Port> ports = top.ports();
        for (int at = 0; at < ports.size(); at++) {
            Module.Port port = ports.get(at);
            rows.add(
                    List.of(
                            name(port.net().name()),
                            ": " + mode(port.way()),
                            type(port.net().bits()) + (at < ports.size() - 1 ? ";" : "")));
        }
        out.columns(rows);
        out.close(");");
        out.close("end component;");
        out.close("end package;");
        out.blank().line("-- To copy, with signals of the same names:");
        out.line("-- board : %s", name);
        out.line("--     port map (");
        for (int at = 0; at < ports.size(); at++) {
            String port = name(ports.get(at).net().name());
            out.line("--         %s => %s%s", port, port, at < ports.size() - 1 ? "," : "");
        }
        out.line("--     );");
        return out.text();
    }

    private static String mode(Module.Way way) {
        return switch (way) {
            case INPUT -> "in";
            case OUTPUT -> "out";
            case INOUT -> "inout";
        };
    }

    private static String type(int bits) {
        return bits == 1 ? "std_logic" : "std_logic_vector(%s downto 0)".formatted(bits - 1);
    }

    private static String name(String name) {
        boolean isBasic =
                BASIC.matcher(name).matches() && !Keywords.isKeyword(name.toLowerCase(Locale.ROOT));
        return isBasic ? name : "\\" + name + "\\";
    }
}
