package polymetron.output.hardware;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import polymetron.elaborate.Domain;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.ElaboratedBus;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.InterfaceRef;
import polymetron.elaborate.InterruptLink;
import polymetron.library.Board;
import polymetron.library.Direction;
import polymetron.verilog.Expression;
import polymetron.verilog.Module;
import polymetron.verilog.Net;

/**
 * The top level: its ports are the lines that leave the chip, its instances the blocks and buses of the platform under their
 * own names, and nets between them are called {@code block_interface_signal}.
 */
final class TopModule {
    private final ElaboratedPlatform platform;
    private final Module module;

    /** Modules of blocks and buses by the names of those. */
    private final Map<String, Module> parts;

    private final Map<String, Net> clocks = new LinkedHashMap<>();
    private final Map<String, Net> resets = new LinkedHashMap<>();

    private final InstanceNames names;
    private final Set<InterfaceRef> openInterrupts;

    private TopModule(
            ElaboratedPlatform platform,
            String name,
            Map<String, Module> parts,
            InstanceNames names) {
        this.names = names;
        this.platform = platform;
        this.openInterrupts =
                platform.interrupts().stream()
                        .filter(link -> !link.isConnected())
                        .map(InterruptLink::ref)
                        .collect(Collectors.toSet());
        this.module = new Module(name);
        this.parts = parts;
    }

    static Module of(
            ElaboratedPlatform platform,
            String name,
            Map<String, Module> parts,
            InstanceNames names) {
        TopModule top = new TopModule(platform, name, parts, names);
        top.build();
        return top.module;
    }

    private void build() {
        Map<String, Net> sources = new LinkedHashMap<>();
        for (Domain domain : platform.domains()) {
            Board.Clock clock = domain.clock();
            clocks.put(
                    domain.name(),
                    sources.computeIfAbsent(clock.name(), name -> module.input(name, 1)));
        }
        for (Domain domain : platform.domains()) {
            Board.Reset reset = domain.reset();
            Net source = sources.computeIfAbsent(reset.name(), name -> module.input(name, 1));
            Net net = module.wire(domain.name() + "_rst", 1);
            Map<String, Expression> ins = new LinkedHashMap<>();
            ins.put("clk", clocks.get(domain.name()).read());
            ins.put("source", source.read());
            module.instance(
                    "polymetron_reset",
                    domain.name() + "_reset",
                    Map.of("ACTIVE_LOW", reset.activeLow() ? "1" : "0"),
                    ins,
                    Map.of("rst", net));
            resets.put(domain.name(), net);
        }
        Map<String, Net> nets = new LinkedHashMap<>();
        for (ElaboratedBlock block : platform.blocks()) {
            block(block, nets);
        }
        for (ElaboratedBus bus : platform.buses()) {
            bus(bus, nets);
        }
    }

    private void block(ElaboratedBlock block, Map<String, Net> nets) {
        Map<String, Expression> ins = new LinkedHashMap<>();
        Map<String, Net> outs = new LinkedHashMap<>();
        for (Module.Port port : parts.get(block.name()).ports()) {
            String name = port.net().name();
            boolean isInput = port.way() == Module.Way.INPUT;
            Expression known = isInput ? known(block, name, port.net().bits(), nets) : null;
            if (known != null) {
                ins.put(name, known);
                continue;
            }
            Net net =
                    isOutside(block, name)
                            ? (isInput
                                    ? module.input(block.name() + "_" + name, port.net().bits())
                                    : module.output(block.name() + "_" + name, port.net().bits()))
                            : net(nets, prefix(block, name) + name, port.net().bits());
            if (isInput) {
                ins.put(name, net.read());
            } else {
                outs.put(name, net);
            }
        }
        module.instance(
                parts.get(block.name()).name(), names.of(block.name()), Map.of(), ins, outs);
    }

    /** What stands before the name of a port in that of its net; interrupts that go nowhere say so. */
    private String prefix(ElaboratedBlock block, String port) {
        boolean goesNowhere = openInterrupts.contains(new InterfaceRef(block.name(), port));
        return (goesNowhere ? "unused_" : "") + block.name() + "_";
    }

    private Net net(Map<String, Net> nets, String name, int bits) {
        return nets.computeIfAbsent(name, each -> module.wire(each, bits));
    }

    private static boolean isOutside(ElaboratedBlock block, String port) {
        return block.shape().outward().stream()
                .flatMap(form -> form.ports().stream())
                .filter(each -> each.direction() != Direction.BOTH)
                .anyMatch(each -> each.name().equals(port));
    }

    /** Clocks, resets and interrupts; null for anything else. */
    private Expression known(ElaboratedBlock block, String port, int bits, Map<String, Net> nets) {
        boolean isClock = block.type().clocks().stream().anyMatch(each -> each.name().equals(port));
        if (isClock) {
            return clocks.get(block.block().domains().get(port)).read();
        }
        boolean isReset = block.type().resets().stream().anyMatch(each -> each.name().equals(port));
        if (isReset) {
            return resets.get(block.block().domains().get(port)).read();
        }
        var sink = block.shape().interrupt(port).filter(each -> !each.isSource());
        if (sink.isEmpty()) {
            return null;
        }
        List<Expression> lines = new ArrayList<>();
        for (int at = bits - 1; at >= 0; at--) {
            Expression line = Expression.constant(1, 0);
            for (InterruptLink link : platform.interrupts()) {
                if (link.isConnected()
                        && link.sinkBlock() == block
                        && link.sink().name().equals(port)
                        && link.wire().input() == sink.get().first() + at) {
                    Expression source =
                            net(nets, link.block().name() + "_" + link.source().name(), 1).read();
                    line = line.reads().isEmpty() ? source : line.or(source);
                }
            }
            lines.add(line);
        }
        return Expression.concat(lines.toArray(Expression[]::new));
    }

    private void bus(ElaboratedBus bus, Map<String, Net> nets) {
        Map<String, Expression> ins = new LinkedHashMap<>();
        Map<String, Net> outs = new LinkedHashMap<>();
        for (Module.Port port : parts.get(bus.name()).ports()) {
            String name = port.net().name();
            if (name.equals("clk")) {
                ins.put(name, clocks.get(bus.bus().domain()).read());
            } else if (name.equals("rst")) {
                ins.put(name, resets.get(bus.bus().domain()).read());
            } else if (port.way() == Module.Way.INPUT) {
                ins.put(name, net(nets, name, port.net().bits()).read());
            } else {
                outs.put(name, net(nets, name, port.net().bits()));
            }
        }
        module.instance(parts.get(bus.name()).name(), names.of(bus.name()), Map.of(), ins, outs);
    }
}
