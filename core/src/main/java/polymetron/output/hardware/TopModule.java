package polymetron.output.hardware;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import polymetron.elaborate.Domain;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.ElaboratedBus;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.InitiatorPort;
import polymetron.elaborate.InterfaceRef;
import polymetron.elaborate.InterruptLink;
import polymetron.elaborate.SizedInterface;
import polymetron.elaborate.SizedOutward;
import polymetron.elaborate.SizedPort;
import polymetron.elaborate.TargetRange;
import polymetron.library.Direction;
import polymetron.platform.Attachment;
import polymetron.software.Harts;
import polymetron.software.MachineTimer;
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

    private static final int TIME_BITS = 64;

    private final Map<String, Net> sources = new LinkedHashMap<>();
    private final Map<String, Net> nets = new LinkedHashMap<>();
    private final Map<String, Net> clocks = new LinkedHashMap<>();
    private final Map<String, Net> resets = new LinkedHashMap<>();

    private final InstanceNames names;
    private final Set<InterfaceRef> openInterrupts;
    private final StreamNets streams;

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
        this.streams = new StreamNets(platform, parts);
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
        for (Domain domain : platform.domains()) {
            clocks.put(domain.name(), clock(domain));
            resets.put(domain.name(), module.wire(domain.name() + "__rst", 1));
        }
        for (Domain domain : platform.domains()) {
            reset(domain);
        }
        OutsideLogic.all(platform).forEach(this::outside);
        for (ElaboratedBlock block : platform.blocks()) {
            if (!OutsideLogic.is(block)) {
                block(block);
            }
        }
        for (ElaboratedBus bus : platform.buses()) {
            if (parts.containsKey(bus.name())) {
                bus(bus);
            } else {
                bus.placed().forEach(this::idle);
            }
        }
    }

    /** A target on a bus without initiators: nothing ever comes. */
    private void idle(TargetRange target) {
        Interface own = Interface.of(platform, target.block(), target.form());
        String between = isAdapted(target.block(), target.form()) ? "__" : "_";
        for (Signal signal : own.signals()) {
            if (signal.fromInitiator()) {
                String name = target.block().name() + "_" + target.form().name() + between;
                int bits = signal.bits(own.addressBits(), own.dataBits());
                module.assign(net(name + signal.name(), bits), Expression.constant(bits, 0));
            }
        }
    }

    // --- clocks and resets

    private Net clock(Domain domain) {
        return domain.clock() != null
                ? fromBoard(domain.clock().name())
                : made(domain.domain().clock());
    }

    private Net fromBoard(String name) {
        return sources.computeIfAbsent(name, each -> module.input(each, 1));
    }

    /** The net of what a block makes, {@code block.output}. */
    private Net made(String reference) {
        return net(reference.replace('.', '_'), 1);
    }

    /** Asserted by the board or a block, and as long as a PLL on the way of the clock is not locked. */
    private void reset(Domain domain) {
        Expression source = null;
        if (domain.reset() != null) {
            Expression level = fromBoard(domain.reset().name()).read();
            source = domain.reset().activeLow() ? level.not() : level;
        } else if (domain.hasReset()) {
            source = made(domain.domain().reset()).read();
        }
        for (ElaboratedBlock pll : Clocks.plls(platform, domain)) {
            Expression unlocked = net(pll.name() + "_" + SidePort.LOCKED + "__", 1).read().not();
            source = source == null ? unlocked : source.or(unlocked);
        }
        module.instance(
                "polymetron_reset",
                domain.name() + "__reset",
                Map.of(),
                Map.of("clk", clocks.get(domain.name()).read(), "source", source),
                Map.of("rst", resets.get(domain.name())));
    }

    // --- blocks

    /** The bus, the clock, the reset and the interrupts of logic outside are ports. */
    private void outside(OutsideLogic outside) {
        String between = isAdapted(outside.block(), outside.form()) ? "__" : "_";
        for (OutsideLogic.Port port : outside.busPorts(platform)) {
            nets.put(outside.busName() + between + port.signal(), port(port));
        }
        for (OutsideLogic.Port port : outside.clocks()) {
            module.assign(port(port), domain(outside, port, clocks));
        }
        for (OutsideLogic.Port port : outside.resets()) {
            module.assign(port(port), domain(outside, port, resets));
        }
        for (OutsideLogic.Port port : outside.interrupts()) {
            Net line = port(port);
            nets.put(port.name(), line);
            if (openInterrupts.contains(new InterfaceRef(outside.block().name(), port.signal()))) {
                module.unused(port.name(), List.of(line.read()));
            }
        }
    }

    private Net port(OutsideLogic.Port port) {
        return port.way() == Module.Way.OUTPUT
                ? module.output(port.name(), port.bits())
                : module.input(port.name(), port.bits());
    }

    private static Expression domain(
            OutsideLogic outside, OutsideLogic.Port port, Map<String, Net> of) {
        return of.get(outside.block().block().domains().get(port.signal())).read();
    }

    private void block(ElaboratedBlock block) {
        Map<String, Expression> ins = new LinkedHashMap<>();
        Map<String, Net> outs = new LinkedHashMap<>();
        for (Module.Port port : parts.get(block.name()).ports()) {
            String name = port.net().name();
            boolean isInput = port.way() == Module.Way.INPUT;
            Expression known = isInput ? known(block, name, port.net().bits()) : null;
            if (known != null) {
                ins.put(name, known);
                continue;
            }
            Net net = netOf(block, port);
            if (isInput) {
                ins.put(name, net.read());
            } else {
                outs.put(name, net);
            }
        }
        module.instance(
                parts.get(block.name()).name(), names.of(block.name()), Map.of(), ins, outs);
        pads(block);
    }

    /** What stands before the name of a port in that of its net; what nothing reads says so. */
    private String prefix(ElaboratedBlock block, String port) {
        String plain = port.replaceFirst("__$", "");
        boolean goesNowhere =
                openInterrupts.contains(new InterfaceRef(block.name(), plain))
                        || streams.isUnread(block, port);
        return (goesNowhere ? "unused_" : "") + block.name() + "_";
    }

    private Net net(String name, int bits) {
        return nets.computeIfAbsent(name, each -> module.wire(each, bits));
    }

    private Net netOf(ElaboratedBlock block, Module.Port port) {
        String name = port.net().name();
        int bits = port.net().bits();
        if (isOutside(block, name)) {
            String outside = outside(block, name);
            return port.way() == Module.Way.INPUT
                    ? module.input(outside, bits)
                    : module.output(outside, bits);
        }
        Optional<SizedInterface> bus =
                block.shape().busInterfaces().stream()
                        .filter(form -> name.startsWith(form.name() + "_"))
                        .filter(form -> isSignal(block, form, name))
                        .findFirst();
        // Behind its adapters an interface has nets of its own.
        if (bus.isPresent() && isAdapted(block, bus.get())) {
            String form = bus.get().name();
            return net(block.name() + "_" + form + "__" + name.substring(form.length() + 1), bits);
        }
        return net(prefix(block, name) + name, bits);
    }

    private boolean isSignal(ElaboratedBlock block, SizedInterface form, String port) {
        String signal = port.substring(form.name().length() + 1);
        return Interface.of(platform, block, form).signals().stream()
                .anyMatch(each -> each.name().equals(signal));
    }

    private boolean isAdapted(ElaboratedBlock block, SizedInterface form) {
        Attachment at = block.block().attachments().get(form.name());
        return at != null
                && !platform.busIndex()
                        .get(at.bus())
                        .adaptersOf(new InterfaceRef(block.name(), form.name()))
                        .isEmpty();
    }

    private static String outside(ElaboratedBlock block, String port) {
        return block.name() + "_" + port.replaceFirst("__$", "");
    }

    private static boolean isOutside(ElaboratedBlock block, String port) {
        return block.shape().outward().stream()
                .flatMap(form -> form.ports().stream())
                .filter(each -> each.direction() != Direction.BOTH)
                .anyMatch(each -> BlockModule.port(each.name()).equals(port));
    }

    /** Lines that go both ways: the pads, with what the block drives and reads. They are not driven during a reset. */
    private void pads(ElaboratedBlock block) {
        String domain = block.domain(null);
        for (SizedOutward form : block.shape().outward()) {
            for (SizedPort port : form.ports()) {
                if (port.direction() == Direction.BOTH) {
                    String name = block.name() + "_" + port.name();
                    int bits = port.width();
                    Map<String, Net> outs = new LinkedHashMap<>();
                    outs.put("pad", module.inout(name, bits));
                    outs.put("in", net(name + "_in", bits));
                    Map<String, Expression> ins = new LinkedHashMap<>();
                    ins.put("out", net(name + "_out", bits).read());
                    ins.put("drive", net(name + "_drive", bits).read());
                    ins.put("off", resets.get(domain).read());
                    module.instance(
                            "polymetron_pads",
                            name + "__pads",
                            Map.of("BITS", Integer.toString(bits)),
                            ins,
                            outs);
                }
            }
        }
    }

    /** Clocks, resets, interrupts, streams and the time; null for anything else. */
    private Expression known(ElaboratedBlock block, String port, int bits) {
        String plain = port.replaceFirst("__$", "");
        boolean isClock =
                block.type().clocks().stream().anyMatch(each -> each.name().equals(plain));
        if (isClock) {
            return clocks.get(block.block().domains().get(plain)).read();
        }
        boolean isReset =
                block.type().resets().stream().anyMatch(each -> each.name().equals(plain));
        if (isReset) {
            return resets.get(block.block().domains().get(plain)).read();
        }
        if (port.equals(SidePort.TIME + "__")) {
            return time(block);
        }
        Expression ofStream = streams.input(block, port, (name, wide) -> net(name, wide).read());
        if (ofStream != null) {
            return ofStream;
        }
        var sink = block.shape().interrupt(plain).filter(each -> !each.isSource());
        if (sink.isEmpty()) {
            return null;
        }
        List<Expression> lines = new ArrayList<>();
        for (int at = bits - 1; at >= 0; at--) {
            Expression line = Expression.constant(1, 0);
            for (InterruptLink link : platform.interrupts()) {
                if (link.isConnected()
                        && link.sinkBlock() == block
                        && link.sink().name().equals(plain)
                        && link.wire().input() == sink.get().first() + at) {
                    Expression source = line(link).read();
                    line = line.reads().isEmpty() ? source : line.or(source);
                }
            }
            lines.add(line);
        }
        return Expression.concat(lines.toArray(Expression[]::new));
    }

    /** An interrupt line as the clock of its sink sees it. */
    private Net line(InterruptLink link) {
        String name = link.block().name() + "_" + BlockModule.port(link.source().name());
        String from = link.block().domain(null);
        String to = link.sinkBlock().domain(null);
        if (from == null || from.equals(to)) {
            return net(name, 1);
        }
        String synchronised = name + "__in_" + to;
        Net known = nets.get(synchronised);
        if (known != null) {
            return known;
        }
        Net line = net(synchronised, 1);
        new Cable(module, synchronised + "__synchroniser")
                .parameter("BITS", 1)
                .in("clk", clocks.get(to))
                .in("rst", resets.get(to))
                .in("in", net(name, 1))
                .out("out", line)
                .to("polymetron_synchroniser");
        return line;
    }

    /** MTIME of the machine timer that serves a processor; 0 without one. */
    private Expression time(ElaboratedBlock block) {
        ElaboratedBlock timer =
                Harts.of(platform).of(block).stream()
                        .flatMap(hart -> MachineTimer.serving(platform, hart).stream())
                        .map(MachineTimer::block)
                        .findFirst()
                        .orElse(null);
        if (timer == null) {
            return Expression.constant(TIME_BITS, 0);
        }
        Net near = net(timer.name() + "_" + SidePort.TIME + "__", TIME_BITS);
        String from = timer.domain(null);
        String to = block.domain(null);
        if (from.equals(to)) {
            return near.read();
        }
        Net far = module.wire(block.name() + "__" + SidePort.TIME, TIME_BITS);
        new Cable(module, block.name() + "__time")
                .parameter("BITS", TIME_BITS)
                .in("near_clk", clocks.get(from))
                .in("near_rst", resets.get(from))
                .in("near", near)
                .in("far_clk", clocks.get(to))
                .in("far_rst", resets.get(to))
                .out("far", far)
                .to("polymetron_snapshot");
        return far.read();
    }

    // --- buses

    private void bus(ElaboratedBus bus) {
        Cable cable = new Cable(module, names.of(bus.name()));
        for (Module.Port port : parts.get(bus.name()).ports()) {
            String name = port.net().name();
            if (name.equals("clk")) {
                cable.in(name, clocks.get(bus.bus().domain()));
            } else if (name.equals("rst")) {
                cable.in(name, resets.get(bus.bus().domain()));
            } else if (port.way() == Module.Way.INPUT) {
                cable.in(name, net(name, port.net().bits()));
            } else {
                cable.out(name, net(name, port.net().bits()));
            }
        }
        cable.to(parts.get(bus.name()).name());
        for (InitiatorPort each : bus.initiators()) {
            adapter(bus, each.block(), each.form());
        }
        for (TargetRange each : bus.placed()) {
            adapter(bus, each.block(), each.form());
        }
    }

    private void adapter(ElaboratedBus bus, ElaboratedBlock block, SizedInterface form) {
        if (!isAdapted(block, form)) {
            return;
        }
        String name = block.name() + "_" + form.name();
        String own = block.domain(form.type().clock());
        String upper = form.isTarget() ? bus.bus().domain() : own;
        String lower = form.isTarget() ? own : bus.bus().domain();
        Module adapter = parts.get(name + "__adapter");
        Cable cable = new Cable(module, name + "__adapter");
        for (Module.Port port : adapter.ports()) {
            String signal = port.net().name();
            int bits = port.net().bits();
            Net net =
                    switch (signal) {
                        case "clk" -> clocks.get(upper);
                        case "rst" -> resets.get(upper);
                        case "far_clk" -> clocks.get(lower);
                        case "far_rst" -> resets.get(lower);
                        default -> {
                            boolean isBlockSide = signal.startsWith("s_") != form.isTarget();
                            yield net(
                                    name + (isBlockSide ? "__" : "_") + signal.substring(2), bits);
                        }
                    };
            if (port.way() == Module.Way.INPUT) {
                cable.in(signal, net);
            } else {
                cable.out(signal, net);
            }
        }
        cable.to(adapter.name());
    }
}
