package polymetron.output.hardware;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import polymetron.elaborate.AddressSpace;
import polymetron.elaborate.ElaboratedBus;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.InitiatorPort;
import polymetron.elaborate.TargetRange;
import polymetron.output.HandoffFile;
import polymetron.text.TextWriter;
import polymetron.verilog.Module;

/**
 * What has to be proved of the exported address decode of a bus: for each initiator and each address, a target is selected
 * exactly where the address space of that initiator has it. The statement is written from the address spaces as comparisons
 * with both ends of each range, and not from what the decode was made of. A solver shows that there is no address for which
 * it is wrong (yosys writes the problem in SMT-LIB 2, z3 solves it).
 *
 * @param bus name of the bus
 * @param decode file of the decode, below the hand-off
 * @param statement module {@code proof} with an output {@code ok}
 * @param script commands for yosys, which writes {@code proof.smt2}
 */
public record DecodeProof(String bus, String decode, HandoffFile statement, String script) {
    /** What a solver is asked: whether there is a state in which {@code ok} is 0. */
    public static final String QUESTION =
            "\n(declare-fun s () |proof_s|)\n(assert (not (|proof_n ok| s)))\n(check-sat)\n"
                    + "(get-value ((|proof_n address| s) (|proof_n initiator| s)))\n";

    /** One for each bus of a platform whose hardware can be built. */
    public static List<DecodeProof> of(ElaboratedPlatform platform, Hardware hardware) {
        List<DecodeProof> proofs = new ArrayList<>();
        for (ElaboratedBus bus : platform.buses()) {
            String name = BusModule.name(hardware.top(), bus) + "_decode";
            hardware.modules().stream()
                    .filter(module -> module.name().equals(name))
                    .forEach(module -> proofs.add(of(platform, bus, module)));
        }
        return List.copyOf(proofs);
    }

    private static DecodeProof of(ElaboratedPlatform platform, ElaboratedBus bus, Module decode) {
        Map<String, Integer> bits = new LinkedHashMap<>();
        decode.ports().forEach(port -> bits.put(port.net().name(), port.net().bits()));
        TextWriter out = TextWriter.indentedBy("    ");
        out.open("module proof (");
        out.line("input wire [%s:0] address,", bits.get("address") - 1);
        out.line("input wire [%s:0] initiator,", bits.get("initiator") - 1);
        out.line("output wire ok");
        out.between(");");
        int targets = bits.get("target");
        out.line("wire [%s:0] target;", targets - 1);
        out.line("wire [%s:0] expected;", targets - 1);
        out.line(
                "%s decode (.address(address), .initiator(initiator), .target(target));",
                decode.name());
        List<InitiatorPort> initiators = BusModule.ordered(bus);
        for (int target = 0; target < targets; target++) {
            List<String> cases = new ArrayList<>();
            for (int at = 0; at < initiators.size(); at++) {
                for (TargetRange seen : seen(platform, initiators.get(at))) {
                    if (seen.ref().equals(bus.placed().get(target).ref())) {
                        cases.add(
                                "(initiator[%s] && address >= %s'h%x && address <= %s'h%x)"
                                        .formatted(
                                                at,
                                                bits.get("address"),
                                                seen.range().base(),
                                                bits.get("address"),
                                                seen.range().last()));
                    }
                }
            }
            out.line(
                    "assign expected["
                            + target
                            + "] = "
                            + (cases.isEmpty() ? "1'b0" : String.join(" || ", cases))
                            + ";");
        }
        List<String> turns = new ArrayList<>();
        for (int at = 0; at < initiators.size(); at++) {
            turns.add("initiator == %s'h%x".formatted(initiators.size(), 1L << at));
        }
        out.line("wire turn = " + String.join(" || ", turns) + ";");
        out.line("assign ok = !turn || target == expected;");
        out.close("endmodule");
        String file = "hdl/" + decode.name() + ".v";
        return new DecodeProof(
                bus.name(),
                file,
                new HandoffFile("proof.v", "what is proved of " + bus.name(), out.text()),
                "read_verilog %s proof.v; prep -flatten -top proof; write_smt2 -wires proof.smt2"
                        .formatted(file));
    }

    private static List<TargetRange> seen(ElaboratedPlatform platform, InitiatorPort initiator) {
        return platform.space(initiator.ref()).map(AddressSpace::ranges).orElse(List.of());
    }
}
