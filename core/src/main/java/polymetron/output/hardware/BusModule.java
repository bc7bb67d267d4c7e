package polymetron.output.hardware;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import polymetron.bus.Protocol;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.ElaboratedBus;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.InitiatorPort;
import polymetron.elaborate.SizedInterface;
import polymetron.elaborate.TargetRange;
import polymetron.verilog.Expression;
import polymetron.verilog.Module;
import polymetron.verilog.Net;

/**
 * A bus as a module: a port for each attachment in the bus's own protocol, the address decode, and the common bus in between.
 * Everything that the decode leads nowhere is an error.
 */
final class BusModule {
    private static final String BUS = "polymetron_axi4_lite_bus";

    private final ElaboratedPlatform platform;
    private final ElaboratedBus bus;
    private final Module module;
    private final List<InitiatorPort> initiators;
    private final int addressBits;
    private final int dataBits;
    private Net writeAddress;
    private Net readAddress;

    private BusModule(ElaboratedPlatform platform, ElaboratedBus bus, String name) {
        this.platform = platform;
        this.bus = bus;
        this.module = new Module(name);
        this.initiators = bus.inOrder();
        this.addressBits = DecodeModule.addressBits(platform, bus, initiators);
        this.dataBits = bus.bus().dataWidth();
    }

    /** Name of the module of a bus; no block has two underscores in a row in its name. */
    static String name(String top, ElaboratedBus bus) {
        return top + "_" + bus.name() + "__bus";
    }

    /**
     * @return the address decode, and the module of the bus
     */
    static List<Module> of(ElaboratedPlatform platform, ElaboratedBus bus, String name) {
        BusModule built = new BusModule(platform, bus, name);
        Module decode =
                DecodeModule.of(
                        platform, bus, built.initiators, built.addressBits, name + "_decode");
        built.build(decode.name());
        return List.of(decode, built.module);
    }

    private void build(String decode) {
        Net clk = module.input("clk", 1);
        Net rst = module.input("rst", 1);
        List<Map<String, Net>> sides = new ArrayList<>();
        for (InitiatorPort each : initiators) {
            sides.add(ports(each.block(), each.form(), false));
        }
        List<Map<String, Net>> targets = new ArrayList<>();
        for (TargetRange each : bus.placed()) {
            targets.add(ports(each.block(), each.form(), true));
        }
        // Without targets the bus answers every access with an error.
        if (targets.isEmpty()) {
            targets.add(Map.of());
        }
        if (bus.bus().protocol() == Protocol.APB) {
            module.unused("clock", List.of(clk.read(), rst.read()));
            apb(decode, sides.getFirst(), targets);
        } else {
            axi4Lite(decode, clk, rst, sides, targets);
        }
    }

    private Map<String, Net> ports(ElaboratedBlock block, SizedInterface form, boolean drives) {
        return Signals.ports(
                module,
                block.name() + "_" + form.name(),
                Interface.of(platform, block, form).on(bus),
                drives);
    }

    // --- APB

    /** All targets get everything but the select; the answers are those of the one that is selected. */
    private void apb(String decode, Map<String, Net> side, List<Map<String, Net>> targets) {
        Net address = module.wire("address", side.get("paddr").read().widened(addressBits));
        Net target = module.wire("target", targets.size());
        module.instance(
                decode,
                "decode",
                Map.of(),
                Map.of("address", address.read(), "initiator", Expression.constant(1, 1)),
                Map.of("target", target));
        Map<String, Expression> ins = new LinkedHashMap<>();
        Map<String, Net> outs = new LinkedHashMap<>();
        ins.put("s_psel", side.get("psel").read());
        ins.put("s_penable", side.get("penable").read());
        ins.put("target", target.read());
        outs.put("s_pready", side.get("pready"));
        outs.put("s_pslverr", side.get("pslverr"));
        for (String signal : List.of("psel", "penable")) {
            Net all = vector(outs, "m_" + signal, targets.size());
            for (int at = 0; at < targets.size(); at++) {
                Net port = targets.get(at).get(signal);
                if (port == null) {
                    module.unused(signal, List.of(all.bit(at)));
                } else {
                    module.assign(port, all.bit(at));
                }
            }
        }
        for (String signal : List.of("pready", "pslverr")) {
            ins.put("m_" + signal, sideBySide(signal, targets));
        }
        module.instance(
                "polymetron_apb_bus",
                "bus",
                Map.of("TARGETS", Integer.toString(targets.size())),
                ins,
                outs);
        offsets("paddr", address, targets);
        for (String signal : List.of("pwrite", "pwdata", "pstrb")) {
            Net given = side.get(signal);
            int bits =
                    signal.equals("pwdata") ? dataBits : signal.equals("pstrb") ? dataBits / 8 : 1;
            Expression value = given == null ? Expression.constant(bits, 0) : given.read();
            if (bus.placed().isEmpty()) {
                module.unused(signal, List.of(value));
            } else {
                targets.forEach(each -> module.assign(each.get(signal), value));
            }
        }
        module.assign(side.get("prdata"), chosen(targets, target, "prdata"));
    }

    // --- AXI4-Lite

    private void axi4Lite(
            String decode,
            Net clk,
            Net rst,
            List<Map<String, Net>> sides,
            List<Map<String, Net>> targets) {
        Map<String, Expression> ins = new LinkedHashMap<>();
        Map<String, Net> outs = new LinkedHashMap<>();
        ins.put("clk", clk.read());
        ins.put("rst", rst.read());
        Net writer = vector(outs, "write_initiator", initiators.size());
        Net reader = vector(outs, "read_initiator", initiators.size());
        Net writeAnswers = vector(outs, "write_answers", targets.size());
        Net readAnswers = vector(outs, "read_answers", targets.size());
        Net writeFailed = vector(outs, "write_failed", 1);
        Net readFailed = vector(outs, "read_failed", 1);
        Net writeTarget = target(decode, "write", chosen(sides, writer, "awaddr"), writer);
        Net readTarget = target(decode, "read", chosen(sides, reader, "araddr"), reader);
        ins.put("write_target", writeTarget.read());
        ins.put("read_target", readTarget.read());
        for (Signal signal : Signals.AXI4_LITE) {
            if (signal.isHandshake()) {
                handshakes(signal, "s_", sides, signal.fromInitiator(), ins, outs);
                handshakes(signal, "m_", targets, !signal.fromInitiator(), ins, outs);
            }
        }
        Map<String, String> parameters = new LinkedHashMap<>();
        parameters.put("INITIATORS", Integer.toString(initiators.size()));
        parameters.put("TARGETS", Integer.toString(targets.size()));
        parameters.put("BY_PRIORITY", bus.bus().goesByPriority() ? "1" : "0");
        module.instance(BUS, "bus", parameters, ins, outs);
        offsets("awaddr", writeAddress, targets);
        offsets("araddr", readAddress, targets);
        Net data = module.wire("write_data", chosen(sides, writer, "wdata"));
        Net bytes = module.wire("write_bytes", chosen(sides, writer, "wstrb"));
        forAll(targets, "wdata", data);
        forAll(targets, "wstrb", bytes);
        if (bus.placed().isEmpty()) {
            module.unused(
                    "without_targets",
                    List.of(data.read(), bytes.read(), writeAnswers.read(), readAnswers.read()));
        }
        forAll(sides, "bresp", answer(targets, writeAnswers, writeFailed, "bresp"));
        forAll(sides, "rresp", answer(targets, readAnswers, readFailed, "rresp"));
        forAll(sides, "rdata", module.wire("read_data", chosen(targets, readAnswers, "rdata")));
    }

    private Net vector(Map<String, Net> outs, String name, int bits) {
        Net net = module.wire(name, bits);
        outs.put(name, net);
        return net;
    }

    private Net target(String decode, String way, Expression chosen, Net initiator) {
        Net address = module.wire(way + "_address", chosen);
        if (way.equals("write")) {
            writeAddress = address;
        } else {
            readAddress = address;
        }
        Net target = module.wire(way + "_target", DecodeModule.lines(bus));
        Map<String, Expression> ins = new LinkedHashMap<>();
        ins.put("address", address.read());
        ins.put("initiator", initiator.read());
        module.instance(decode, way + "_decode", Map.of(), ins, Map.of("target", target));
        return target;
    }

    /** A signal of the one side whose bit is set. */
    private Expression chosen(List<Map<String, Net>> sides, Net which, String signal) {
        Expression all = null;
        for (int at = 0; at < sides.size(); at++) {
            Net net = sides.get(at).get(signal);
            if (net != null) {
                int bits = signal.endsWith("addr") ? addressBits : net.bits();
                Expression part = which.bit(at).repeat(bits).and(net.read().widened(bits));
                all = all == null ? part : all.or(part);
            }
        }
        int none =
                signal.endsWith("addr")
                        ? addressBits
                        : signal.equals("wstrb") ? dataBits / 8 : dataBits;
        return all == null ? Expression.constant(none, 0) : all;
    }

    private Net answer(List<Map<String, Net>> targets, Net which, Net failed, String signal) {
        return module.wire(signal, chosen(targets, which, signal).or(failed.read().repeat(2)));
    }

    private void forAll(List<Map<String, Net>> sides, String signal, Net value) {
        for (Map<String, Net> side : sides) {
            Net port = side.get(signal);
            if (port != null) {
                module.assign(port, value.read());
            }
        }
    }

    /** One bit of each side, side by side. */
    private void handshakes(
            Signal signal,
            String prefix,
            List<Map<String, Net>> sides,
            boolean isInput,
            Map<String, Expression> ins,
            Map<String, Net> outs) {
        String name = prefix + signal.name();
        if (isInput) {
            ins.put(name, sideBySide(signal.name(), sides));
            return;
        }
        Net all = vector(outs, name, sides.size());
        List<Expression> unused = new ArrayList<>();
        for (int at = 0; at < sides.size(); at++) {
            Net port = sides.get(at).get(signal.name());
            if (port != null) {
                module.assign(port, all.bit(at));
            } else {
                unused.add(all.bit(at));
            }
        }
        if (!unused.isEmpty()) {
            module.unused(name, unused);
        }
    }

    private static Expression sideBySide(String signal, List<Map<String, Net>> sides) {
        List<Expression> parts = new ArrayList<>();
        for (Map<String, Net> side : sides.reversed()) {
            Net net = side.get(signal);
            parts.add(net == null ? Expression.constant(1, 0) : net.read());
        }
        return Expression.concat(parts.toArray(Expression[]::new));
    }

    /** Each target gets the address within its range. */
    private void offsets(String signal, Net address, List<Map<String, Net>> targets) {
        for (int at = 0; at < bus.placed().size(); at++) {
            TargetRange target = bus.placed().get(at);
            Net port = targets.get(at).get(signal);
            long below = target.range().base() & (1L << port.bits()) - 1;
            Expression low = address.bits(port.bits() - 1, 0);
            module.assign(
                    port, below == 0 ? low : low.minus(Expression.constant(port.bits(), below)));
        }
    }
}
