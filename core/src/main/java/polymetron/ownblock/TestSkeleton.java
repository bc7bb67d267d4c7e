package polymetron.ownblock;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import polymetron.hdl.HdlModule;
import polymetron.hdl.HdlPort;
import polymetron.hdl.HdlReader;
import polymetron.library.BlockType;
import polymetron.library.ClockInput;
import polymetron.library.ResetInput;
import polymetron.output.hardware.LogicPorts;
import polymetron.text.TextWriter;
import polymetron.verilog.Module;

/**
 * A template for a test of the user's logic: clock, reset, the module with its ports, and inputs at random. What has to come out of it
 * its user writes. The module has its parameters at their defaults.
 */
public final class TestSkeleton {
    private record Port(String name, Module.Way way, int bits) {}

    private TestSkeleton() {}

    /** Name of the test's file. */
    public static String fileName(BlockType type) {
        return LogicSkeleton.moduleName(type) + "_test.v";
    }

    /**
     * @param block its module has the ports that are connected; without one those that the definition gives it
     */
    public static String of(OwnBlock block) {
        BlockType type = block.type();
        List<Port> ports = ports(block);
        Set<String> clocks =
                type.clocks().stream().map(ClockInput::name).collect(Collectors.toSet());
        Set<String> resets =
                type.resets().stream().map(ResetInput::name).collect(Collectors.toSet());
        List<Port> inputs =
                ports.stream()
                        .filter(each -> each.way() == Module.Way.INPUT)
                        .filter(each -> !clocks.contains(each.name()))
                        .filter(each -> !resets.contains(each.name()))
                        .toList();
        String module = LogicSkeleton.moduleName(type);
        TextWriter out = TextWriter.indentedBy("    ");
        out.line("// Tries %s. What is wrong it says with $error; without one it passes.", module);
        out.line("`timescale 1ns / 1ns");
        out.line("`default_nettype none");
        out.blank();
        out.open("module %s_test;", module);
        for (Port port : ports) {
            String range = port.bits() == 1 ? "" : "[%s:0] ".formatted(port.bits() - 1);
            boolean isReset = resets.contains(port.name());
            if (port.way() == Module.Way.INPUT) {
                out.line("reg %s%s = %s;", range, port.name(), isReset ? 1 : 0);
            } else {
                out.line("wire %s%s;", range, port.name());
            }
        }
        out.blank();
        out.open("%s tried (", module);
        for (int at = 0; at < ports.size(); at++) {
            String name = ports.get(at).name();
            out.line(".%1$s(%1$s)%2$s", name, at + 1 < ports.size() ? "," : "");
        }
        out.close(");");
        out.blank();
        List<String> driven = ordered(type.clocks().stream().map(ClockInput::name).toList(), ports);
        for (String clock : driven) {
            out.line("always #5 %1$s = !%1$s;", clock);
        }
        out.blank();
        out.open("initial begin");
        String pause = driven.isEmpty() ? "#10;" : "@(negedge %s);".formatted(driven.getFirst());
        out.line("repeat (4) %s", pause);
        for (String reset : ordered(type.resets().stream().map(ResetInput::name).toList(), ports)) {
            out.line("%s = 0;", reset);
        }
        out.open("repeat (1000) begin");
        inputs.forEach(each -> out.line("%s = $urandom;", each.name()));
        out.line("%s", pause);
        ports.stream()
                .filter(each -> each.way() != Module.Way.INPUT)
                .findFirst()
                .ifPresent(
                        each ->
                                out.line(
                                        "// if (%1$s !== what_it_has_to_be) $error(\"%1$s is %%h\","
                                                + " %1$s);",
                                        each.name()));
        out.close("end");
        out.line("$finish;");
        out.close("end");
        out.close("endmodule");
        out.blank();
        out.line("`default_nettype wire");
        return out.text();
    }

    private static List<Port> ports(OwnBlock block) {
        Optional<HdlModule> module =
                HdlReader.read(block.hardware()).module(LogicSkeleton.moduleName(block.type()));
        return module.map(TestSkeleton::ofModule)
                .orElseGet(
                        () ->
                                LogicPorts.of(block.type(), Map.of()).stream()
                                        .map(each -> new Port(each.name(), each.way(), each.bits()))
                                        .toList());
    }

    private static List<Port> ofModule(HdlModule module) {
        List<Port> ports = new ArrayList<>();
        for (HdlPort port : module.ports()) {
            int bits;
            try {
                bits = module.bits(port, Map.of());
            } catch (IllegalArgumentException unknown) {
                // The findings say so.
                bits = 1;
            }
            ports.add(new Port(port.name(), port.way(), bits));
        }
        return ports;
    }

    private static List<String> ordered(List<String> names, List<Port> ports) {
        return names.stream()
                .filter(name -> ports.stream().anyMatch(port -> port.name().equals(name)))
                .toList();
    }
}
