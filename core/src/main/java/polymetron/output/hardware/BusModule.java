package polymetron.output.hardware;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import polymetron.elaborate.AddressSpace;
import polymetron.elaborate.ElaboratedBus;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.InitiatorPort;
import polymetron.elaborate.TargetRange;
import polymetron.verilog.Expression;
import polymetron.verilog.Module;
import polymetron.verilog.Net;

/**
 * An AXI4-Lite bus as a module: a port for each attachment, the address decode, and the common bus in between. An initiator
 * gets to the targets that it sees, and to no others: everything else is an error.
 */
final class BusModule {
    private static final String BUS = "polymetron_axi4_lite_bus";

    private final ElaboratedPlatform platform;
    private final ElaboratedBus bus;
    private final Module module;
    private final List<InitiatorPort> initiators;
    private final int addressBits;
    private final int dataBits;

    private BusModule(ElaboratedPlatform platform, ElaboratedBus bus, String name) {
        this.platform = platform;
        this.bus = bus;
        this.module = new Module(name);
        this.initiators = ordered(bus);
        this.addressBits =
                Math.max(
                        bus.bus().addressWidth(),
                        initiators.stream()
                                .mapToInt(each -> BlockModule.addressBits(each.form()))
                                .max()
                                .orElse(0));
        this.dataBits = bus.bus().dataWidth();
    }

    /** Those with the higher priority first where priorities decide. */
    private static List<InitiatorPort> ordered(ElaboratedBus bus) {
        return bus.bus().goesByPriority()
                ? bus.initiators().stream()
                        .sorted(Comparator.comparing(each -> -priority(each)))
                        .toList()
                : bus.initiators();
    }

    private static int priority(InitiatorPort initiator) {
        Integer priority =
                initiator.attachment() == null ? null : initiator.attachment().priority();
        return priority == null ? 0 : priority;
    }

    /**
     * @return the address decode, and the module of the bus
     */
    static List<Module> of(ElaboratedPlatform platform, ElaboratedBus bus, String name) {
        BusModule built = new BusModule(platform, bus, name);
        Module decode = built.decode(name + "_decode");
        built.build(decode.name());
        return List.of(decode, built.module);
    }

    /** Which target an address leads to, for each initiator: the one place where addresses are. */
    private Module decode(String name) {
        Module decode = new Module(name);
        Net address = decode.input("address", addressBits);
        Net initiator = decode.input("initiator", initiators.size());
        Net target = decode.output("target", bus.placed().size());
        List<Expression> selects = new ArrayList<>();
        for (TargetRange each : bus.placed().reversed()) {
            Expression select = inRange(address, each);
            List<Integer> seeing = new ArrayList<>();
            for (int at = 0; at < initiators.size(); at++) {
                if (sees(initiators.get(at), each)) {
                    seeing.add(at);
                }
            }
            if (seeing.size() < initiators.size()) {
                Expression who = Expression.constant(1, 0);
                for (int at : seeing) {
                    who = who.reads().isEmpty() ? initiator.bit(at) : who.or(initiator.bit(at));
                }
                select = select.and(who);
            }
            selects.add(
                    decode.wire("selects_" + each.block().name() + "_" + each.form().name(), select)
                            .read());
        }
        decode.assign(target, Expression.concat(selects.toArray(Expression[]::new)));
        if (!decode.reads().contains("initiator")) {
            decode.wire("unused_initiator", initiator.read().any());
        }
        return decode;
    }

    private boolean sees(InitiatorPort initiator, TargetRange target) {
        return platform.space(initiator.ref()).map(AddressSpace::ranges).orElse(List.of()).stream()
                .anyMatch(seen -> seen.ref().equals(target.ref()));
    }

    private Expression inRange(Net address, TargetRange target) {
        long base = target.range().base();
        long last = target.range().last();
        int low = BlockModule.addressBits(target.form());
        boolean isAligned = last - base == (1L << low) - 1 && (base & last - base) == 0;
        if (isAligned) {
            return low >= addressBits
                    ? Expression.constant(1, 1)
                    : address.bits(addressBits - 1, low)
                            .is(Expression.constant(addressBits - low, base >>> low));
        }
        Expression notBelow = Expression.constant(addressBits, base).atMost(address.read());
        Expression notAbove = address.read().atMost(Expression.constant(addressBits, last));
        return base == 0 ? notAbove : notBelow.and(notAbove);
    }

    private void build(String decode) {
        Net clk = module.input("clk", 1);
        Net rst = module.input("rst", 1);
        List<Map<String, Net>> sides = new ArrayList<>();
        for (InitiatorPort each : initiators) {
            sides.add(
                    AxiLite.ports(
                            module,
                            each.block().name() + "_" + each.form().name(),
                            false,
                            each.form().onlyFetches(),
                            BlockModule.addressBits(each.form()),
                            dataBits));
        }
        List<Map<String, Net>> targets = new ArrayList<>();
        for (TargetRange each : bus.placed()) {
            targets.add(
                    AxiLite.ports(
                            module,
                            each.block().name() + "_" + each.form().name(),
                            true,
                            false,
                            BlockModule.addressBits(each.form()),
                            dataBits));
        }
        Map<String, Expression> ins = new LinkedHashMap<>();
        Map<String, Net> outs = new LinkedHashMap<>();
        ins.put("clk", clk.read());
        ins.put("rst", rst.read());
        Map<String, Net> vectors = new LinkedHashMap<>();
        for (AxiLite.Signal signal : AxiLite.SIGNALS) {
            initiatorSide(signal, sides, ins, outs, vectors);
            targetSide(signal, targets, ins, outs, vectors);
        }
        for (String way : new String[] {"write", "read"}) {
            Net address = module.wire(way + "_address", addressBits);
            Net initiator = module.wire(way + "_initiator", initiators.size());
            Net target = module.wire(way + "_target", targets.size());
            outs.put(way + "_address", address);
            outs.put(way + "_initiator", initiator);
            ins.put(way + "_target", target.read());
            module.instance(
                    decode,
                    way + "_decode",
                    Map.of(),
                    ordered("address", address.read(), "initiator", initiator.read()),
                    Map.of("target", target));
            offsets(way.equals("write") ? "awaddr" : "araddr", address, targets);
        }
        Map<String, String> parameters = new LinkedHashMap<>();
        parameters.put("INITIATORS", Integer.toString(initiators.size()));
        parameters.put("TARGETS", Integer.toString(targets.size()));
        parameters.put("ADDRESS_BITS", Integer.toString(addressBits));
        parameters.put("DATA_BITS", Integer.toString(dataBits));
        parameters.put("BY_PRIORITY", bus.bus().goesByPriority() ? "1" : "0");
        module.instance(BUS, "bus", parameters, ins, outs);
        shares(sides, targets, vectors);
    }

    private static Map<String, Expression> ordered(
            String one, Expression first, String two, Expression second) {
        Map<String, Expression> map = new LinkedHashMap<>();
        map.put(one, first);
        map.put(two, second);
        return map;
    }

    /** Signals of initiators side by side; what goes back to all of them is one for all. */
    private void initiatorSide(
            AxiLite.Signal signal,
            List<Map<String, Net>> sides,
            Map<String, Expression> ins,
            Map<String, Net> outs,
            Map<String, Net> vectors) {
        int bits = signal.width(addressBits, dataBits);
        String name = "s_" + signal.name();
        if (signal.fromInitiator()) {
            List<Expression> parts = new ArrayList<>();
            for (Map<String, Net> side : sides.reversed()) {
                Net net = side.get(signal.name());
                parts.add(net == null ? Expression.constant(bits, 0) : net.read().widened(bits));
            }
            ins.put(name, Expression.concat(parts.toArray(Expression[]::new)));
        } else {
            int width = isShared(signal) ? bits : bits * sides.size();
            Net vector = module.wire(name, width);
            vectors.put(name, vector);
            outs.put(name, vector);
        }
    }

    private static boolean isShared(AxiLite.Signal signal) {
        return signal.name().endsWith("resp") || signal.name().equals("rdata");
    }

    private void targetSide(
            AxiLite.Signal signal,
            List<Map<String, Net>> targets,
            Map<String, Expression> ins,
            Map<String, Net> outs,
            Map<String, Net> vectors) {
        String name = "m_" + signal.name();
        if (signal.name().endsWith("addr")) {
            return;
        }
        int bits = signal.width(addressBits, dataBits);
        if (signal.fromInitiator()) {
            boolean isOne = signal.name().equals("wdata") || signal.name().equals("wstrb");
            Net vector = module.wire(name, isOne ? bits : bits * targets.size());
            vectors.put(name, vector);
            outs.put(name, vector);
        } else {
            List<Expression> parts = new ArrayList<>();
            targets.reversed().forEach(target -> parts.add(target.get(signal.name()).read()));
            ins.put(name, Expression.concat(parts.toArray(Expression[]::new)));
        }
    }

    /** Each target gets the address within its range. */
    private void offsets(String signal, Net address, List<Map<String, Net>> targets) {
        for (int at = 0; at < targets.size(); at++) {
            TargetRange target = bus.placed().get(at);
            Net port = targets.get(at).get(signal);
            long base = target.range().base();
            Expression low = address.bits(port.bits() - 1, 0);
            long below = base & (1L << port.bits()) - 1;
            module.assign(
                    port, below == 0 ? low : low.minus(Expression.constant(port.bits(), below)));
        }
    }

    /** The ports' parts of what the bus gives side by side. */
    private void shares(
            List<Map<String, Net>> sides,
            List<Map<String, Net>> targets,
            Map<String, Net> vectors) {
        List<Expression> unused = new ArrayList<>();
        for (AxiLite.Signal signal : AxiLite.SIGNALS) {
            int bits = signal.width(addressBits, dataBits);
            List<Map<String, Net>> all = signal.fromInitiator() ? targets : sides;
            Net vector = vectors.get((signal.fromInitiator() ? "m_" : "s_") + signal.name());
            for (int at = 0; vector != null && at < all.size(); at++) {
                Net port = all.get(at).get(signal.name());
                boolean isOne = vector.bits() == bits;
                Expression part =
                        isOne ? vector.read() : vector.bits(bits * at + bits - 1, bits * at);
                if (port != null) {
                    module.assign(port, part);
                } else {
                    unused.add(part.any());
                }
            }
        }
        if (!unused.isEmpty()) {
            Expression any = unused.getFirst();
            for (Expression each : unused.subList(1, unused.size())) {
                any = any.or(each);
            }
            module.wire("unused_writes", any);
        }
    }
}
