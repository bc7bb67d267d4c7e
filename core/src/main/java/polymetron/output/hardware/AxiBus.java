package polymetron.output.hardware;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import polymetron.bus.Protocol;
import polymetron.verilog.Expression;
import polymetron.verilog.Net;

/**
 * AXI4 and AXI4-Lite (Arm IHI 0022): a write and a read at a time, each with the initiator whose turn it is and the target to
 * which its address leads. On AXI4 the number of the initiator stands before its ID on the way to the target, and the
 * answer comes back with the ID alone.
 */
final class AxiBus {
    /** Bits of an ID, of which an initiator uses the lower half. */
    private static final int OWN_ID_BITS = 4;

    private final BusFrame frame;
    private final boolean hasBursts;

    private AxiBus(BusFrame frame) {
        this.frame = frame;
        this.hasBursts = frame.bus.bus().protocol() == Protocol.AXI4;
    }

    static void build(BusFrame frame) {
        new AxiBus(frame).build();
    }

    private void build() {
        Net writer = frame.from("write_initiator", frame.initiators.size());
        Net reader = frame.from("read_initiator", frame.initiators.size());
        Net writeAnswers = frame.from("write_answers", frame.targets.size());
        Net readAnswers = frame.from("read_answers", frame.targets.size());
        Net writeFailed = frame.from("write_failed", 1);
        Net readFailed = frame.from("read_failed", 1);
        Net ownLast = frame.from("own_last", 1);
        Net writeAddress =
                frame.address("write_address", frame.chosen(frame.sides, writer, "awaddr"));
        Net readAddress =
                frame.address("read_address", frame.chosen(frame.sides, reader, "araddr"));
        frame.ins.put("write_target", frame.decoded("write_", writeAddress, writer.read()).read());
        frame.ins.put("read_target", frame.decoded("read_", readAddress, reader.read()).read());
        for (Signal signal : Signals.AXI4_LITE) {
            if (signal.isHandshake()) {
                boolean isInput = signal.fromInitiator();
                handshake("s_", signal.name(), frame.sides, isInput);
                handshake("m_", signal.name(), frame.targets, !isInput);
            }
        }
        Expression one = Expression.constant(1, 1);
        Net readLast =
                frame.module.wire(
                        "read_last",
                        hasBursts ? frame.chosen(frame.targets, readAnswers, "rlast") : one);
        Net writeLast =
                frame.module.wire(
                        "write_last", hasBursts ? frame.chosen(frame.sides, writer, "wlast") : one);
        Net length =
                frame.module.wire(
                        "read_length",
                        hasBursts
                                ? frame.chosen(frame.sides, reader, "arlen")
                                : Expression.constant(8, 0));
        id(writer, "write", "awid");
        id(reader, "read", "arid");
        frame.ins.put("write_last", writeLast.read());
        frame.ins.put("read_length", length.read());
        frame.ins.put("read_last", readLast.read());
        Map<String, String> parameters = new LinkedHashMap<>(frame.turns());
        parameters.put("BURSTS", hasBursts ? "1" : "0");
        frame.handshakes("polymetron_axi4_bus", parameters);
        frame.offsets("awaddr", writeAddress);
        frame.offsets("araddr", readAddress);
        frame.passOn(writer, List.of("wdata", "wstrb"));
        if (!frame.hasTargets()) {
            frame.module.unused(
                    "without_targets", List.of(writeAnswers.read(), readAnswers.read()));
        }
        frame.forAll(frame.sides, "bresp", answer(writeAnswers, writeFailed, "bresp"));
        frame.forAll(frame.sides, "rresp", answer(readAnswers, readFailed, "rresp"));
        frame.forAll(
                frame.sides,
                "rdata",
                frame.module
                        .wire("read_data", frame.chosen(frame.targets, readAnswers, "rdata"))
                        .read());
        if (hasBursts) {
            bursts(writer, reader, writeLast, readLast, readFailed, ownLast);
        } else {
            frame.module.unused("own_last", List.of(ownLast.read()));
        }
    }

    private void handshake(
            String prefix, String signal, List<Map<String, Net>> among, boolean isInput) {
        if (isInput) {
            frame.toHandshakes(prefix, signal, among);
        } else {
            frame.fromHandshakes(prefix, signal, among);
        }
    }

    /** What AXI4 has beside AXI4-Lite. */
    private void bursts(
            Net writer, Net reader, Net writeLast, Net readLast, Net readFailed, Net ownLast) {
        frame.passOn(writer, List.of("awlen", "awsize", "awburst"));
        frame.passOn(reader, List.of("arlen", "arsize", "arburst"));
        frame.toTargets("wlast", writeLast.read());
        frame.forAll(
                frame.sides,
                "rlast",
                Expression.choose(readFailed.read(), ownLast.read(), readLast.read()));
        frame.forAll(frame.sides, "bid", frame.outs.get("write_id_kept").read());
        frame.forAll(frame.sides, "rid", frame.outs.get("read_id_kept").read());
        frame.ignore(frame.targets, "bid");
        frame.ignore(frame.targets, "rid");
    }

    private Expression answer(Net answers, Net failed, String signal) {
        return frame.module
                .wire(
                        signal,
                        frame.chosen(frame.targets, answers, signal).or(failed.read().repeat(2)))
                .read();
    }

    /** The ID that goes to a target: the number of the initiator, and the lower half of its own. */
    private void id(Net chosen, String way, String signal) {
        Net id =
                frame.module.wire(
                        "chosen_" + signal,
                        hasBursts
                                ? frame.chosen(frame.sides, chosen, signal)
                                : Expression.constant(2 * OWN_ID_BITS, 0));
        Expression own = id.bits(OWN_ID_BITS - 1, 0);
        frame.ins.put(way + "_id", Expression.concat(Expression.constant(OWN_ID_BITS, 0), own));
        Net kept = frame.from(way + "_id_kept", 2 * OWN_ID_BITS);
        if (!hasBursts) {
            frame.module.unused(way + "_ids", List.of(id.read(), kept.read()));
            return;
        }
        frame.module.unused(signal + "_upper", List.of(id.bits(2 * OWN_ID_BITS - 1, OWN_ID_BITS)));
        frame.toTargets(signal, Expression.concat(number(chosen), own));
    }

    private static Expression number(Net chosen) {
        List<Expression> bits = new ArrayList<>();
        for (int bit = OWN_ID_BITS - 1; bit >= 0; bit--) {
            Expression set = Expression.constant(1, 0);
            for (int at = 0; at < chosen.bits(); at++) {
                if ((at >> bit & 1) != 0) {
                    set = set.reads().isEmpty() ? chosen.bit(at) : set.or(chosen.bit(at));
                }
            }
            bits.add(set);
        }
        return Expression.concat(bits.toArray(Expression[]::new));
    }
}
