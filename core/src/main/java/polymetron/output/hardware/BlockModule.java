package polymetron.output.hardware;

import java.math.BigInteger;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.Register;
import polymetron.elaborate.SizedInterface;
import polymetron.elaborate.SizedInterrupt;
import polymetron.elaborate.SizedOutward;
import polymetron.elaborate.SizedPort;
import polymetron.expression.Value;
import polymetron.library.ClockInput;
import polymetron.library.HardwareBinding;
import polymetron.library.ResetInput;
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

    private final ElaboratedPlatform platform;
    private final ElaboratedBlock block;
    private final ModuleHeader behaviour;
    private final Module module;
    private final Map<String, Value> parameters = new TreeMap<>();

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
        Map<String, Value> known = new HashMap<>(block.shape().parameters());
        known.put(HardwareBinding.FINGERPRINT_HIGH, word(fingerprint.substring(0, 8)));
        known.put(HardwareBinding.FINGERPRINT_LOW, word(fingerprint.substring(8)));
        block.type()
                .hardware()
                .parameters()
                .forEach((parameter, value) -> parameters.put(parameter, value.evaluate(known)));
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
            nets.put(clock.name(), module.input(clock.name(), 1));
        }
        for (ResetInput reset : block.type().resets()) {
            nets.put(reset.name(), module.input(reset.name(), 1));
        }
        for (SizedInterface form : block.shape().busInterfaces()) {
            busInterface(form);
        }
        for (SizedInterrupt port : block.shape().interrupts()) {
            if (port.isSource()) {
                Net line = module.output(port.name(), 1);
                if (behaviour.port(port.name()).isPresent()) {
                    nets.put(port.name(), line);
                } else {
                    Net raised = nets.get("interrupt_" + port.name());
                    module.assign(line, raised == null ? Expression.constant(1, 0) : raised.read());
                }
            } else {
                nets.put(port.name(), module.input(port.name(), port.count()));
            }
        }
        for (SizedOutward form : block.shape().outward()) {
            for (SizedPort port : form.ports()) {
                outward(port);
            }
        }
        behaviour();
    }

    private void outward(SizedPort port) {
        switch (port.direction()) {
            case IN -> either(module.input(port.name(), port.width()), "_in");
            case OUT -> either(module.output(port.name(), port.width()), "_out");
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
    private void either(Net net, String way) {
        nets.put(net.name(), net);
        nets.put(net.name() + way, net);
    }

    // --- buses and registers

    static int addressBits(SizedInterface form) {
        return form.isTarget()
                ? Math.max(3, 64 - Long.numberOfLeadingZeros(form.sizeBytes() - 1))
                : form.addressWidth();
    }

    private void busInterface(SizedInterface form) {
        Map<String, Net> ports =
                AxiLite.ports(
                        module,
                        form.name(),
                        !form.isTarget(),
                        form.onlyFetches(),
                        addressBits(form),
                        form.dataWidth());
        if (behaviour.port(form.name() + "_arvalid").isPresent()) {
            ports.forEach((signal, net) -> nets.put(form.name() + "_" + signal, net));
        } else {
            registers(form, ports);
        }
    }

    private void registers(SizedInterface form, Map<String, Net> bus) {
        int bits = addressBits(form);
        List<Register> registers = block.shape().registersOf(form.name());
        Module bank =
                RegisterBankModule.of(
                        module.name() + "__" + form.name(),
                        registers,
                        platform.frequencyHz(block),
                        bits,
                        port -> behaviour.port(port).isPresent());
        banks.add(bank);
        Net clk = nets.get(block.type().clocks().getFirst().name());
        Net rst = nets.get(block.type().resets().getFirst().name());
        Map<String, Expression> ins = new LinkedHashMap<>();
        Map<String, Net> outs = new LinkedHashMap<>();
        ins.put("clk", clk.read());
        ins.put("rst", rst.read());
        for (AxiLite.Signal signal : AxiLite.SIGNALS) {
            if (signal.fromInitiator()) {
                ins.put("s_" + signal.name(), bus.get(signal.name()).read());
            } else {
                outs.put("s_" + signal.name(), bus.get(signal.name()));
            }
        }
        Map<String, Net> access = new LinkedHashMap<>();
        String[] fromBus = {
            "read", "read_address", "write", "write_address", "write_data", "write_bytes"
        };
        int[] widths = {1, bits, 1, bits, WORD, WORD / 8};
        for (int at = 0; at < fromBus.length; at++) {
            Net net = module.wire(form.name() + "_" + fromBus[at], widths[at]);
            access.put(fromBus[at], net);
            outs.put(fromBus[at], net);
        }
        String[] toBus = {"read_data", "read_error", "write_error"};
        for (String each : toBus) {
            Net net = module.wire(form.name() + "_" + each, each.endsWith("data") ? WORD : 1);
            access.put(each, net);
            ins.put(each, net.read());
        }
        module.instance(
                "polymetron_axi4_lite_registers",
                form.name() + "_end",
                Map.of("ADDRESS_BITS", Integer.toString(bits)),
                ins,
                outs);
        bank(bank, form.name() + "_bank", clk, rst, access);
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
            Net net = nets.get(port.name());
            if (port.way() == Module.Way.INPUT) {
                ins.put(
                        port.name(),
                        net == null ? Expression.constant(port.bits(parameters), 0) : net.read());
            } else {
                outs.put(
                        port.name(),
                        net == null
                                ? module.wire("unused_" + port.name(), port.bits(parameters))
                                : net);
            }
        }
        Map<String, String> values = new TreeMap<>();
        parameters.forEach((name, value) -> values.put(name, constant(value)));
        module.instance(behaviour.name(), "behaviour", values, ins, outs);
    }

    private static String constant(Value value) {
        long number = value.asNumber().longValue();
        return number >>> 31 == 0
                ? Long.toString(number)
                : "32'h%08x".formatted(number & 0xFFFF_FFFFL);
    }
}
