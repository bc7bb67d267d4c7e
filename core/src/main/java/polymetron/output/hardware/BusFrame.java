package polymetron.output.hardware;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
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
 * What the modules of all buses have in common: a port for each attachment in the bus's own protocol, and how signals of
 * the one side that is chosen get to the other side. The handshakes are an instance of the module of the protocol, whose
 * connections are gathered in {@link #ins} and {@link #outs}.
 */
final class BusFrame {
    final ElaboratedBus bus;
    final Module module;
    final List<InitiatorPort> initiators;

    /** Signals of the initiators in order, and of the targets; without a target one that has no signals. */
    final List<Map<String, Net>> sides = new ArrayList<>();

    final List<Map<String, Net>> targets = new ArrayList<>();

    final Map<String, Expression> ins = new LinkedHashMap<>();
    final Map<String, Net> outs = new LinkedHashMap<>();

    private final ElaboratedPlatform platform;
    private final String decode;
    private final int addressBits;

    BusFrame(ElaboratedPlatform platform, ElaboratedBus bus, Module module, String decode) {
        this.platform = platform;
        this.bus = bus;
        this.module = module;
        this.decode = decode;
        this.initiators = bus.inOrder();
        this.addressBits = DecodeModule.addressBits(platform, bus, initiators);
        ins.put("clk", module.input("clk", 1).read());
        ins.put("rst", module.input("rst", 1).read());
        for (InitiatorPort each : initiators) {
            sides.add(ports(each.block(), each.form(), false));
        }
        for (TargetRange each : bus.placed()) {
            targets.add(ports(each.block(), each.form(), true));
        }
        // Without targets the bus answers every access with an error.
        if (targets.isEmpty()) {
            targets.add(Map.of());
        }
    }

    private Map<String, Net> ports(ElaboratedBlock block, SizedInterface form, boolean drives) {
        return Signals.ports(
                module,
                block.name() + "_" + form.name(),
                Interface.of(platform, block, form).on(bus),
                drives);
    }

    boolean hasTargets() {
        return !bus.placed().isEmpty();
    }

    /** The instance of the handshakes, with what was gathered. */
    void handshakes(String ofModule, Map<String, String> parameters) {
        Map<String, String> all = new LinkedHashMap<>(parameters);
        all.put("TARGETS", Integer.toString(targets.size()));
        module.instance(ofModule, "bus", all, ins, outs);
    }

    /** Parameters of a bus whose initiators take turns. */
    Map<String, String> turns() {
        Map<String, String> parameters = new LinkedHashMap<>();
        parameters.put("INITIATORS", Integer.toString(initiators.size()));
        parameters.put("BY_PRIORITY", bus.bus().goesByPriority() ? "1" : "0");
        return parameters;
    }

    /** An output of the handshakes. */
    Net from(String name, int bits) {
        Net net = module.wire(name, bits);
        outs.put(name, net);
        return net;
    }

    /** Widened to what addresses of this bus have. */
    Net address(String name, Expression address) {
        return module.wire(name, address.widened(addressBits));
    }

    /**
     * The target to which an address leads, one bit each.
     *
     * @param prefix of the names of instance and net
     */
    Net decoded(String prefix, Net address, Expression initiator) {
        Net target = module.wire(prefix + "target", DecodeModule.lines(bus));
        Map<String, Expression> in = new LinkedHashMap<>();
        in.put("address", address.read());
        in.put("initiator", initiator);
        module.instance(decode, prefix + "decode", Map.of(), in, Map.of("target", target));
        return target;
    }

    /** A signal of the one side whose bit is set; 0 where no side has it. */
    Expression chosen(List<Map<String, Net>> among, Net which, String signal) {
        int bits = bits(signal);
        Expression all = null;
        for (int at = 0; at < among.size(); at++) {
            Net net = among.get(at).get(signal);
            if (net != null) {
                Expression part = which.bit(at).repeat(bits).and(net.read().widened(bits));
                all = all == null ? part : all.or(part);
            }
        }
        return all == null ? Expression.constant(bits, 0) : all;
    }

    private int bits(String signal) {
        return Signals.of(bus.bus().protocol()).stream()
                .filter(each -> each.name().equals(signal))
                .findFirst()
                .orElseThrow()
                .bits(addressBits, bus.bus().dataWidth());
    }

    /** Gives all targets what the chosen initiator says. */
    void passOn(Net chosen, List<String> signals) {
        for (String signal : signals) {
            toTargets(
                    signal, module.wire("chosen_" + signal, chosen(sides, chosen, signal)).read());
        }
    }

    /** Gives all targets what the only initiator says; one that only reads says 0. */
    void passOn(Map<String, Net> side, List<String> signals) {
        for (String signal : signals) {
            Net given = side.get(signal);
            toTargets(signal, given == null ? Expression.constant(bits(signal), 0) : given.read());
        }
    }

    void toTargets(String signal, Expression value) {
        if (hasTargets()) {
            forAll(targets, signal, value);
        } else {
            module.unused(signal, List.of(value));
        }
    }

    /** Drives a signal of all sides that have it with the same. */
    void forAll(List<Map<String, Net>> among, String signal, Expression value) {
        for (Map<String, Net> side : among) {
            Net port = side.get(signal);
            if (port != null) {
                module.assign(port, value);
            }
        }
    }

    /** Takes one bit of each side to the handshakes, side by side. */
    void toHandshakes(String prefix, String signal, List<Map<String, Net>> among) {
        List<Expression> parts = new ArrayList<>();
        for (Map<String, Net> side : among.reversed()) {
            Net net = side.get(signal);
            parts.add(net == null ? Expression.constant(1, 0) : net.read());
        }
        ins.put(prefix + signal, Expression.concat(parts.toArray(Expression[]::new)));
    }

    /** Gives each side its bit of what the handshakes say. */
    void fromHandshakes(String prefix, String signal, List<Map<String, Net>> among) {
        Net all = from(prefix + signal, among.size());
        List<Expression> unused = new ArrayList<>();
        for (int at = 0; at < among.size(); at++) {
            Net port = among.get(at).get(signal);
            if (port != null) {
                module.assign(port, all.bit(at));
            } else {
                unused.add(all.bit(at));
            }
        }
        if (!unused.isEmpty()) {
            module.unused(prefix + signal, unused);
        }
    }

    /** Each target gets the address within its range. */
    void offsets(String signal, Net address) {
        for (int at = 0; at < bus.placed().size(); at++) {
            TargetRange target = bus.placed().get(at);
            Net port = targets.get(at).get(signal);
            long below = target.range().base() & (1L << port.bits()) - 1;
            Expression low = address.bits(port.bits() - 1, 0);
            module.assign(
                    port, below == 0 ? low : low.minus(Expression.constant(port.bits(), below)));
        }
    }

    /** Signals of sides that nothing on the bus looks at. */
    void ignore(List<Map<String, Net>> among, String signal) {
        List<Expression> unused = new ArrayList<>();
        for (Map<String, Net> side : among) {
            Net net = side.get(signal);
            if (net != null) {
                unused.add(net.read());
            }
        }
        if (!unused.isEmpty()) {
            module.unused(signal, unused);
        }
    }
}
