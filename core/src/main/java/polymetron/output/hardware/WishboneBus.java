package polymetron.output.hardware;

import java.util.List;
import polymetron.verilog.Net;

/** Wishbone B4 with one shared path: what the chosen MASTER says goes to all targets, CYC and STB to one of them. */
final class WishboneBus {
    private WishboneBus() {}

    static void build(BusFrame frame) {
        Net initiator = frame.from("initiator", frame.initiators.size());
        Net address = frame.address("address", frame.chosen(frame.sides, initiator, "adr"));
        Net target = frame.decoded("", address, initiator.read());
        frame.ins.put("target", target.read());
        for (String signal : List.of("cyc", "stb")) {
            frame.toHandshakes("s_", signal, frame.sides);
            frame.fromHandshakes("m_", signal, frame.targets);
        }
        for (String signal : List.of("ack", "err")) {
            frame.fromHandshakes("s_", signal, frame.sides);
            frame.toHandshakes("m_", signal, frame.targets);
        }
        frame.handshakes("polymetron_wishbone_b4_bus", frame.turns());
        frame.offsets("adr", address);
        frame.passOn(initiator, List.of("we", "sel", "dat_w"));
        frame.forAll(
                frame.sides,
                "dat_r",
                frame.module
                        .wire("read_data", frame.chosen(frame.targets, target, "dat_r"))
                        .read());
    }
}
