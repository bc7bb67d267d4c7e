package polymetron.output.hardware;

import java.util.List;
import java.util.Map;
import polymetron.verilog.Expression;
import polymetron.verilog.Net;

/**
 * AHB-Lite (Arm IHI 0033): all targets get everything but the select; the answers are those of the one that was selected in the
 * address phase before. The one manager has the bus, so its own HSEL and HREADY say nothing.
 */
final class AhbLiteBus {
    private AhbLiteBus() {}

    static void build(BusFrame frame) {
        Map<String, Net> side = frame.sides.getFirst();
        Net address = frame.address("address", side.get("haddr").read());
        Net target = frame.decoded("", address, Expression.constant(1, 1));
        frame.ins.put("s_htrans", side.get("htrans").read());
        frame.ins.put("target", target.read());
        frame.outs.put("s_hreadyout", side.get("hreadyout"));
        frame.outs.put("s_hresp", side.get("hresp"));
        Net answers = frame.from("answers", frame.targets.size());
        for (String signal : List.of("hsel", "hready")) {
            frame.fromHandshakes("m_", signal, frame.targets);
        }
        for (String signal : List.of("hreadyout", "hresp")) {
            frame.toHandshakes("m_", signal, frame.targets);
        }
        frame.handshakes("polymetron_ahb_lite_bus", Map.of());
        frame.offsets("haddr", address);
        frame.passOn(side, List.of("htrans", "hwrite", "hsize", "hburst", "hwdata"));
        frame.ignore(frame.sides, "hsel");
        frame.ignore(frame.sides, "hready");
        if (!frame.hasTargets()) {
            frame.module.unused("answers", List.of(answers.read()));
        }
        frame.module.assign(side.get("hrdata"), frame.chosen(frame.targets, answers, "hrdata"));
    }
}
