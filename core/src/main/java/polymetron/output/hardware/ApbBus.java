package polymetron.output.hardware;

import java.util.List;
import java.util.Map;
import polymetron.verilog.Expression;
import polymetron.verilog.Net;

/**
 * APB (Arm IHI 0024): all targets get everything but the select; the answers are those of the one that is selected.
 */
final class ApbBus {
    private ApbBus() {}

    static void build(BusFrame frame) {
        frame.module.unused("clock", List.of(frame.ins.remove("clk"), frame.ins.remove("rst")));
        Map<String, Net> side = frame.sides.getFirst();
        Net address = frame.address("address", side.get("paddr").read());
        Net target = frame.decoded("", address, Expression.constant(1, 1));
        frame.ins.put("s_psel", side.get("psel").read());
        frame.ins.put("s_penable", side.get("penable").read());
        frame.ins.put("target", target.read());
        frame.outs.put("s_pready", side.get("pready"));
        frame.outs.put("s_pslverr", side.get("pslverr"));
        for (String signal : List.of("psel", "penable")) {
            frame.fromHandshakes("m_", signal, frame.targets);
        }
        for (String signal : List.of("pready", "pslverr")) {
            frame.toHandshakes("m_", signal, frame.targets);
        }
        frame.handshakes("polymetron_apb_bus", Map.of());
        frame.offsets("paddr", address);
        frame.passOn(side, List.of("pwrite", "pwdata", "pstrb"));
        frame.module.assign(side.get("prdata"), frame.chosen(frame.targets, target, "prdata"));
    }
}
