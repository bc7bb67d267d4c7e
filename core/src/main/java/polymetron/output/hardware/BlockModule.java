package polymetron.output.hardware;

import java.math.BigInteger;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.stream.Stream;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.SizedInterface;
import polymetron.elaborate.SizedInterrupt;
import polymetron.elaborate.SizedOutward;
import polymetron.elaborate.SizedPort;
import polymetron.elaborate.SizedStream;
import polymetron.expression.Value;
import polymetron.library.ClockInput;
import polymetron.library.ClockOutput;
import polymetron.library.HardwareBinding;
import polymetron.library.ResetInput;
import polymetron.library.ResetOutput;
import polymetron.software.Harts;
import polymetron.software.MachineTimer;
import polymetron.verilog.Expression;
import polymetron.verilog.Module;
import polymetron.verilog.ModuleHeader;
import polymetron.verilog.Net;

/**
 * A block as a module with the ports that its definition gives it: the module that does what the block does, and where that
 * has fields of registers as its ports, the bank of those registers and the end of the bus in front of it.
 */
final class BlockModule {
    private static final int WORD = 32;

    /**
     * Of an initiator with bursts: accesses that follow in this one, and whether there are any. Of a target: whether the next access is to
     * the following word.
     */
    private static final String MORE = "_more";

    private static final String BURSTS = "_bursts";
    private static final int MORE_BITS = 8;

    private final ElaboratedPlatform platform;
    private static final String NO_FINGERPRINT = "0".repeat(16);

    private final ElaboratedBlock block;
    private final ModuleHeader behaviour;
    private final Module module;
    private final Map<String, Value> parameters;

    /** Nets of the block by the names that the behaviour's ports have for them. */
    private final Map<String, Net> nets = new LinkedHashMap<>();

    private final List<Module> banks = new ArrayList<>();

    private BlockModule(
            ElaboratedPlatform platform,
            ElaboratedBlock block,
            ModuleHeader behaviour,
            String fingerprint,
            String name) {
        this.platform = platform;
        this.block = block;
        this.behaviour = behaviour;
        this.module = new Module(name);
        this.parameters = values(platform, block, fingerprint);
    }

    /** Parameters of the module of a block. */
    private static Map<String, Value> values(
            ElaboratedPlatform platform, ElaboratedBlock block, String fingerprint) {
        Map<String, Value> parameters = new TreeMap<>();
        Map<String, Value> known = new HashMap<>(block.shape().parameters());
        known.put(HardwareBinding.FINGERPRINT_HIGH, word(fingerprint.substring(0, 8)));
        known.put(HardwareBinding.FINGERPRINT_LOW, word(fingerprint.substring(8)));
        known.put(HardwareBinding.HAS_TIME, Value.Bits.bit(isServed(platform, block)));
        known.put(HardwareBinding.CLOCK, new Value.Real(platform.frequencyHz(block)));
        for (SizedInterface form : block.shape().busInterfaces()) {
            int bits = Interface.of(platform, block, form).addressBits();
            known.put(HardwareBinding.addressBits(form.name()), number(bits));
        }
        for (ClockOutput clock : block.type().clockOutputs()) {
            known.put(
                    HardwareBinding.halfPeriod(clock.name()),
                    number(Clocks.halfPeriodPicos(platform, block, clock)));
        }
        block.type()
                .hardware()
                .parameters()
                .forEach((parameter, value) -> parameters.put(parameter, value.evaluate(known)));
        return parameters;
    }

    /** Parameters of a block's hardware as Verilog; none where it has none. */
    static Map<String, String> parameters(ElaboratedPlatform platform, ElaboratedBlock block) {
        Map<String, String> values = new TreeMap<>();
        if (block.type().hardware() != null) {
            values(platform, block, NO_FINGERPRINT)
                    .forEach((name, value) -> values.put(name, constant(value)));
        }
        return values;
    }

    /** Whether a machine timer serves a hart of the block. */
    static boolean isServed(ElaboratedPlatform platform, ElaboratedBlock block) {
        return Harts.of(platform).of(block).stream()
                .anyMatch(hart -> MachineTimer.serving(platform, hart).isPresent());
    }

    private static Value number(long value) {
        return Value.Bits.of(BigInteger.valueOf(value), WORD, false);
    }

    private static Value word(String digits) {
        return Value.Bits.of(new BigInteger(digits, 16), WORD, false);
    }

    /**
     * @param fingerprint the platform's
     * @return the register banks of the block, and behind them its module
     */
    static List<Module> of(
            ElaboratedPlatform platform,
            ElaboratedBlock block,
            ModuleHeader behaviour,
            String fingerprint,
            String name) {
        BlockModule built = new BlockModule(platform, block, behaviour, fingerprint, name);
        built.build();
        List<Module> all = new ArrayList<>(built.banks);
        all.add(built.module);
        return all;
    }

    private void build() {
        for (ClockInput clock : block.type().clocks()) {
            nets.put(clock.name(), module.input(port(clock.name()), 1));
        }
        for (ResetInput reset : block.type().resets()) {
            nets.put(reset.name(), module.input(port(reset.name()), 1));
        }
        for (ClockOutput clock : block.shape().clockOutputs()) {
            nets.put(clock.name(), module.output(port(clock.name()), 1));
        }
        for (ResetOutput reset : block.type().resetOutputs()) {
            nets.put(reset.name(), module.output(port(reset.name()), 1));
        }
        for (SidePort side : SidePort.of(block.type(), behaviour)) {
            nets.put(
                    side.port(),
                    side.isOutput()
                            ? module.output(side.net(), side.bits())
                            : module.input(side.net(), side.bits()));
        }
        for (SizedInterface form : block.shape().busInterfaces()) {
            // What only the block's own harts see is inside, and so is an initiator without a
            // window.
            if (form.isForBus()) {
                busInterface(form);
            }
        }
        for (SizedInterrupt port : block.shape().interrupts()) {
            if (port.isSource()) {
                Net line = module.output(port(port.name()), 1);
                if (behaviour.port(port(port.name())).isPresent()) {
                    nets.put(port.name(), line);
                } else {
                    Net raised = nets.get("interrupt_" + port.name());
                    module.assign(line, raised == null ? Expression.constant(1, 0) : raised.read());
                }
            } else {
                nets.put(port.name(), module.input(port(port.name()), port.count()));
            }
        }
        block.shape().streams().forEach(this::stream);
        for (SizedOutward form : block.shape().outward()) {
            for (SizedPort port : form.ports()) {
                outward(port);
            }
        }
        behaviour();
    }

    /** The signals that the behaviour looks at. */
    private void stream(SizedStream form) {
        for (String signal : StreamNets.SIGNALS) {
            String name = form.name() + "_" + signal;
            if (behaviour.port(name).isPresent()) {
                int bits = StreamNets.bits(form, signal);
                boolean drives = StreamNets.isOfSource(signal) == form.isSource();
                nets.put(name, drives ? module.output(name, bits) : module.input(name, bits));
            }
        }
    }

    private void outward(SizedPort port) {
        switch (port.direction()) {
            case IN -> either(port, module.input(port(port.name()), port.width()), "_in");
            case OUT -> either(port, module.output(port(port.name()), port.width()), "_out");
            case BOTH -> {
                nets.put(port.name() + "_in", module.input(port.name() + "_in", port.width()));
                nets.put(port.name() + "_out", module.output(port.name() + "_out", port.width()));
                nets.put(
                        port.name() + "_drive",
                        module.output(port.name() + "_drive", port.width()));
            }
        }
    }

    /** A line that goes one way, under its own name or under that of a block for which it can go both ways. */
    private void either(SizedPort port, Net net, String way) {
        nets.put(port.name(), net);
        nets.put(port.name() + way, net);
    }

    /** A name of the definition as the name of a port: one that is a word of a language has two underscores behind it. */
    static String port(String name) {
        return Keywords.isKeyword(name) ? name + "__" : name;
    }

    // --- buses and registers

    private void busInterface(SizedInterface form) {
        Interface own = Interface.of(platform, block, form);
        Map<String, Net> ports = Signals.ports(module, form.name(), own, !form.isTarget());
        String first = own.signals().getFirst().name();
        if (behaviour.port(form.name() + "_" + first).isPresent()) {
            ports.forEach((signal, net) -> nets.put(form.name() + "_" + signal, net));
            return;
        }
        Clocking clocking = clocking(form);
        Map<String, Net> access =
                Signals.access(module, form.name(), own.addressBits(), own.dataBits());
        String end = form.name() + "_end";
        if (form.isTarget()) {
            if (own.protocol().carriesBursts() && behaviour.port(form.name() + MORE).isPresent()) {
                access.put(BusEnd.MORE, module.wire(form.name() + MORE, 1));
            }
            BusEnd.target(module, end, own, clocking.clk(), clocking.rst(), ports, access);
        } else if (behaviour.port(form.name() + MORE).isPresent()) {
            bursts(form, own, clocking, access, ports);
        } else {
            BusEnd.initiator(module, end, own, clocking.clk(), clocking.rst(), access, ports);
        }
        if (behaviour.port(form.name() + "_request").isPresent()) {
            access.forEach((signal, net) -> nets.put(form.name() + "_" + signal, net));
            if (!form.isTarget()) {
                undriven(form, access);
            }
        } else {
            registers(form, own, clocking, access);
        }
    }

    /** An initiator that says how many accesses follow, and is told whether they are made a burst. */
    private void bursts(
            SizedInterface form,
            Interface own,
            Clocking clocking,
            Map<String, Net> access,
            Map<String, Net> ports) {
        boolean hasBursts = own.protocol().carriesBursts();
        String end = form.name() + "_end";
        Net more = module.wire(form.name() + MORE, MORE_BITS);
        if (hasBursts) {
            BusEnd.bursts(module, end, own, clocking.clk(), clocking.rst(), access, more, ports);
        } else {
            BusEnd.initiator(module, end, own, clocking.clk(), clocking.rst(), access, ports);
            module.unused(form.name() + MORE, List.of(more.read()));
        }
        nets.put(form.name() + MORE, more);
        nets.put(
                form.name() + BURSTS,
                module.wire(form.name() + BURSTS, Expression.constant(1, hasBursts ? 1 : 0)));
    }

    /** What an initiator that only reads does not drive. */
    private void undriven(SizedInterface form, Map<String, Net> access) {
        for (Signal signal : Signals.ACCESS) {
            Net net = access.get(signal.name());
            if (signal.fromInitiator()
                    && behaviour.port(form.name() + "_" + signal.name()).isEmpty()) {
                long value = signal.width() == Signal.Width.BYTES ? -1L : 0;
                module.assign(net, Expression.constant(net.bits(), value));
            }
        }
    }

    private record Clocking(Net clk, Net rst) {}

    /** Clock and reset inputs of an interface. */
    private Clocking clocking(SizedInterface form) {
        String clock =
                form.type().clock() == null
                        ? block.type().clocks().getFirst().name()
                        : form.type().clock();
        // A block in silicon is reset with what it resets itself.
        String reset =
                Stream.concat(
                                Stream.concat(
                                                block.type().resets().stream()
                                                        .filter(each -> clock.equals(each.clock())),
                                                block.type().resets().stream())
                                        .map(ResetInput::name),
                                block.type().resetOutputs().stream().map(ResetOutput::name))
                        .findFirst()
                        .orElseThrow();
        return new Clocking(nets.get(clock), nets.get(reset));
    }

    /** A bank answers in the cycle of the request. */
    private void registers(
            SizedInterface form, Interface own, Clocking clocking, Map<String, Net> access) {
        Module bank =
                RegisterBankModule.of(
                        module.name() + "__" + form.name(),
                        block.shape().registersOf(form.name()),
                        platform.frequencyHz(block),
                        own.addressBits(),
                        port -> behaviour.port(port).isPresent());
        banks.add(bank);
        String name = form.name();
        Expression request = access.get("request").read();
        Expression write = access.get("write").read();
        Map<String, Net> words = new LinkedHashMap<>();
        words.put("read", module.wire(name + "_reads", request.and(write.not())));
        words.put("read_address", access.get("address"));
        words.put("write", module.wire(name + "_writes", request.and(write)));
        words.put("write_address", access.get("address"));
        words.put("write_data", access.get("value"));
        words.put("write_bytes", access.get("bytes"));
        words.put("read_data", access.get("answer"));
        words.put("read_error", module.wire(name + "_read_error", 1));
        words.put("write_error", module.wire(name + "_write_error", 1));
        module.assign(access.get("done"), request);
        module.assign(
                access.get("error"),
                Expression.choose(
                        write, words.get("write_error").read(), words.get("read_error").read()));
        bank(bank, name + "_bank", clocking.clk(), clocking.rst(), words);
    }

    private void bank(Module bank, String instance, Net clk, Net rst, Map<String, Net> access) {
        Map<String, Expression> ins = new LinkedHashMap<>();
        Map<String, Net> outs = new LinkedHashMap<>();
        for (Module.Port port : bank.ports()) {
            String name = port.net().name();
            boolean isInput = port.way() == Module.Way.INPUT;
            if (name.equals("clk") || name.equals("rst")) {
                ins.put(name, name.equals("clk") ? clk.read() : rst.read());
            } else if (access.containsKey(name)) {
                if (isInput) {
                    ins.put(name, access.get(name).read());
                } else {
                    outs.put(name, access.get(name));
                }
            } else if (isInput) {
                if (behaviour.port(name).filter(BlockModule::isOutput).isPresent()) {
                    Net net = module.wire(name, port.net().bits());
                    nets.put(name, net);
                    ins.put(name, net.read());
                } else {
                    // What the block never does.
                    ins.put(name, Expression.constant(port.net().bits(), 0));
                }
            } else if (name.startsWith("interrupt_")
                    || behaviour.port(name).filter(each -> !isOutput(each)).isPresent()) {
                Net net = module.wire(name, port.net().bits());
                nets.put(name, net);
                outs.put(name, net);
            } else {
                outs.put(name, module.wire("unused_" + name, port.net().bits()));
            }
        }
        module.instance(bank.name(), instance, Map.of(), ins, outs);
    }

    private static boolean isOutput(ModuleHeader.Port port) {
        return port.way() == Module.Way.OUTPUT;
    }

    // --- what the block does

    private void behaviour() {
        Map<String, Expression> ins = new LinkedHashMap<>();
        Map<String, Net> outs = new LinkedHashMap<>();
        for (ModuleHeader.Port port : behaviour.ports()) {
            Net net = nets.get(port.name().replaceFirst("__$", ""));
            if (port.way() == Module.Way.INPUT) {
                ins.put(
                        port.name(),
                        net == null
                                ? Expression.constant(behaviour.bits(port, parameters), 0)
                                : net.read());
            } else {
                outs.put(
                        port.name(),
                        net == null
                                ? module.wire(
                                        "unused_" + port.name(), behaviour.bits(port, parameters))
                                : net);
            }
        }
        Map<String, String> values = new TreeMap<>();
        parameters.forEach((name, value) -> values.put(name, constant(value)));
        module.instance(behaviour.name(), "behaviour", values, ins, outs);
    }

    private static String constant(Value value) {
        if (value instanceof Value.Text text) {
            return "\"" + text.text() + "\"";
        }
        long number = value.asNumber().longValue();
        return number >>> 31 == 0
                ? Long.toString(number)
                : "32'h%08x".formatted(number & 0xFFFF_FFFFL);
    }
}
