package polymetron.output.hardware;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import polymetron.address.AddressRange;
import polymetron.elaborate.AddressSpace;
import polymetron.elaborate.Bridge;
import polymetron.elaborate.ElaboratedBus;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.InitiatorPort;
import polymetron.elaborate.TargetRange;
import polymetron.output.HandoffFile;
import polymetron.text.TextWriter;
import polymetron.verilog.Module;

/**
 * What has to be proved of the exported address decode of a bus and of those that bridges lead to from it: for each initiator
 * and each address, a target is selected exactly where the address space of that initiator has it. The statement is written
 * from the address spaces as comparisons with both ends of each range, and not from what the decode was made of. A solver
 * shows that there is no address for which it is wrong (yosys writes the problem in SMT-LIB 2, z3 solves it).
 *
 * @param bus name of the bus that the initiators are on
 * @param decodes files of the decodes, below the hand-off
 * @param statement module {@code proof} with an output {@code ok}
 * @param script commands for yosys, which writes {@code proof.smt2}
 */
public record DecodeProof(String bus, List<String> decodes, HandoffFile statement, String script) {
    /** What a solver is asked: whether there is a state in which {@code ok} is 0. */
    public static final String QUESTION =
            "\n(declare-fun s () |proof_s|)\n(assert (not (|proof_n ok| s)))\n(check-sat)\n"
                    + "(get-value ((|proof_n address| s) (|proof_n initiator| s)))\n";

    /** One for each bus that has initiators of its own, on a platform whose hardware can be built. */
    public static List<DecodeProof> of(ElaboratedPlatform platform, Hardware hardware) {
        Map<String, Module> modules =
                hardware.modules().stream().collect(Collectors.toMap(Module::name, each -> each));
        List<DecodeProof> proofs = new ArrayList<>();
        for (ElaboratedBus bus : platform.buses()) {
            boolean isRoot =
                    bus.initiators().stream().anyMatch(each -> !each.isBehindBridge())
                            && !modules.isEmpty();
            if (isRoot) {
                proofs.add(new Writer(platform, hardware.top(), modules, bus).write());
            }
        }
        return List.copyOf(proofs);
    }

    private static final class Writer {
        private final ElaboratedPlatform platform;
        private final String top;
        private final Map<String, Module> modules;
        private final ElaboratedBus root;
        private final List<InitiatorPort> initiators;
        private final TextWriter out = TextWriter.indentedBy("    ");
        private final Set<String> decodes = new LinkedHashSet<>();

        /** Nets that say whether a target is reached, by the bridges on the way and its name. */
        private final Map<String, String> selects = new LinkedHashMap<>();

        private int places;

        private Writer(
                ElaboratedPlatform platform,
                String top,
                Map<String, Module> modules,
                ElaboratedBus root) {
            this.platform = platform;
            this.top = top;
            this.modules = modules;
            this.root = root;
            this.initiators = root.inOrder();
        }

        private DecodeProof write() {
            int addressBits = bits(root, "address");
            out.open("module proof (");
            out.line("input wire [%s:0] address,", addressBits - 1);
            out.line("input wire [%s:0] initiator,", initiators.size() - 1);
            out.line("output wire ok");
            out.between(");");
            bus(root, "address", "initiator", "1'b1", List.of());
            expected(addressBits);
            List<String> turns = new ArrayList<>();
            for (int at = 0; at < initiators.size(); at++) {
                if (!initiators.get(at).isBehindBridge()) {
                    turns.add("initiator == %s'h%x".formatted(initiators.size(), 1L << at));
                }
            }
            out.line("wire turn = " + String.join(" || ", turns) + ";");
            out.line("assign ok = !turn || selected == expected;");
            out.close("endmodule");
            List<String> files = decodes.stream().map(each -> "hdl/" + each + ".v").toList();
            return new DecodeProof(
                    root.name(),
                    files,
                    new HandoffFile("proof.v", "what is proved of " + root.name(), out.text()),
                    "read_verilog %s proof.v; prep -flatten -top proof; write_smt2 -wires proof.smt2"
                            .formatted(String.join(" ", files)));
        }

        private String decodeOf(ElaboratedBus bus) {
            return BusModule.name(top, bus) + "_decode";
        }

        private int bits(ElaboratedBus bus, String port) {
            return modules.get(decodeOf(bus)).ports().stream()
                    .filter(each -> each.net().name().equals(port))
                    .findFirst()
                    .orElseThrow()
                    .net()
                    .bits();
        }

        /**
         * @param reached net that says whether the access comes here at all
         */
        private void bus(
                ElaboratedBus bus, String address, String who, String reached, List<String> via) {
            String target = "target" + places++;
            out.line("wire [%s:0] %s;", bits(bus, "target") - 1, target);
            decodes.add(decodeOf(bus));
            out.line(
                    "%s decode_%s (.address(%s), .initiator(%s), .target(%s));",
                    decodeOf(bus), target, address, who, target);
            for (int at = 0; at < bus.placed().size(); at++) {
                TargetRange each = bus.placed().get(at);
                String select = "%s && %s[%s]".formatted(reached, target, at);
                if (each.isWindow()) {
                    window(each, address, select, via);
                } else {
                    selects.put(via + " " + each.ref(), select);
                }
            }
        }

        private void window(TargetRange window, String address, String select, List<String> via) {
            Bridge bridge = window.block().shape().bridge();
            var at = window.block().block().attachments().get(bridge.downstream());
            ElaboratedBus below = at == null ? null : platform.busIndex().get(at.bus());
            if (below == null || bridge.window() == null) {
                return;
            }
            String place = "window" + places++;
            int bits = bits(below, "address");
            out.line("wire %s = %s;", place, select);
            out.line(
                    "wire [%s:0] %s_address = 64'h%x + (%s - 64'h%x);",
                    bits - 1, place, bridge.window().base(), address, window.range().base());
            List<InitiatorPort> others = below.inOrder();
            int number = 0;
            while (others.get(number).block() != window.block()) {
                number++;
            }
            List<String> further = new ArrayList<>(via);
            further.add(window.block().name());
            bus(
                    below,
                    place + "_address",
                    "%s'h%x".formatted(others.size(), 1L << number),
                    place,
                    further);
        }

        private void expected(int addressBits) {
            Map<String, List<String>> cases = new LinkedHashMap<>();
            selects.keySet().forEach(each -> cases.put(each, new ArrayList<>()));
            for (int at = 0; at < initiators.size(); at++) {
                AddressSpace space = platform.space(initiators.get(at).ref()).orElse(null);
                for (TargetRange seen : space == null ? List.<TargetRange>of() : space.ranges()) {
                    AddressRange range = seen.range();
                    List<String> own = cases.get(seen.via() + " " + seen.ref());
                    // What an initiator has inside its own block is on no bus.
                    if (own != null) {
                        own.add(
                                "(initiator[%s] && address >= %s'h%x && address <= %s'h%x)"
                                        .formatted(
                                                at,
                                                addressBits,
                                                range.base(),
                                                addressBits,
                                                range.last()));
                    }
                }
            }
            out.line("wire [%s:0] selected;", selects.size() - 1);
            out.line("wire [%s:0] expected;", selects.size() - 1);
            int number = 0;
            for (Map.Entry<String, String> each : selects.entrySet()) {
                List<String> own = cases.get(each.getKey());
                out.line("assign selected[" + number + "] = " + each.getValue() + ";");
                out.line(
                        "assign expected["
                                + number++
                                + "] = "
                                + (own.isEmpty() ? "1'b0" : String.join(" || ", own))
                                + ";");
            }
        }
    }
}
