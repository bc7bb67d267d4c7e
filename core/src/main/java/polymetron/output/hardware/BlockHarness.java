package polymetron.output.hardware;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.SortedMap;
import java.util.TreeMap;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.SizedInterface;
import polymetron.hdl.HdlReader;
import polymetron.verilog.Expression;
import polymetron.verilog.Module;
import polymetron.verilog.ModuleHeader;
import polymetron.verilog.Net;

/**
 * A block alone, with plain accesses in front of its registers, so that a program can step it: up to four clocks with a reset each, the
 * access of {@link Signals#ACCESS}, and inputs and outputs by number. What has streams in several clocks cannot stand alone, nor what
 * moves data by itself in another clock than that in which it is stepped. Each stream has two words of a buffer in front of the block, so that nothing of what is outside reaches through to what comes out in the
 * same cycle: a word takes a cycle more on its way in and out.
 *
 * @param files Verilog and VHDL by name; {@code harness.v} has the module {@code harness}
 * @param entities what of the VHDL the Verilog uses
 * @param clocks the first is the one in which the block is stepped
 * @param inputs names of ports that come in, in the order of the harness's {@code in0}, {@code in1} …
 * @param outputs likewise for {@code out0} …
 * @param streams where among those the streams are
 * @param initiators likewise its own accesses
 */
public record BlockHarness(
        SortedMap<String, String> files,
        List<VhdlEntity> entities,
        HarnessClocks clocks,
        List<Line> inputs,
        List<Line> outputs,
        List<HarnessStream> streams,
        List<HarnessInitiator> initiators,
        int addressBits) {
    private static final int WIDEST = 64;
    private static final String NO_FINGERPRINT = "0".repeat(16);

    /** A port of the block. */
    public record Line(String name, int bits) {}

    /**
     * @param form the target behind which the registers are; null for a block without a bus interface
     * @return empty for a block that cannot stand alone
     */
    public static Optional<BlockHarness> of(
            ElaboratedPlatform platform, ElaboratedBlock block, SizedInterface form) {
        List<SizedInterface> targets =
                block.shape().busInterfaces().stream().filter(SizedInterface::isTarget).toList();
        boolean isAlone =
                block.type().hardware() != null
                        && HarnessClocks.canBeStepped(platform, block)
                        && block.type().clockOutputs().isEmpty()
                        && block.type().resetOutputs().isEmpty()
                        && (block.type().clocks().isEmpty() || !block.type().resets().isEmpty())
                        && (form == null
                                ? targets.isEmpty()
                                : targets.equals(List.of(form))
                                        && form.dataWidth() == Integer.SIZE);
        return isAlone
                        && HarnessInitiators.canBeServed(
                                block, HarnessClocks.of(platform, block, form))
                ? build(platform, block, form)
                : Optional.empty();
    }

    private static Optional<BlockHarness> build(
            ElaboratedPlatform platform, ElaboratedBlock block, SizedInterface form) {
        SortedMap<String, String> files = new TreeMap<>(platform.library().hardware().common());
        SortedMap<String, String> own = platform.library().hardware().of(block.type().identity());
        files.putAll(own);
        ModuleHeader behaviour =
                HdlReader.read(own).module(block.type().hardware().module()).orElseThrow().header();
        List<Module> modules =
                BlockModule.of(platform, block, behaviour, NO_FINGERPRINT, "harness_block");
        Module harness = new Module("harness");
        HarnessClocks clocks = HarnessClocks.of(platform, block, form);
        Map<String, Net> pulses = clocks.inputs(harness, "clk");
        Map<String, Net> resets = clocks.inputs(harness, "rst");
        Net clk = pulses.get(clocks.stepped().name());
        Net rst = resets.get(clocks.stepped().name());
        int addressBits =
                form == null ? Integer.SIZE : Interface.of(platform, block, form).addressBits();
        String ofBus = clocks.ofAccesses().name();
        Map<String, Net> nets =
                bus(platform, block, form, harness, pulses.get(ofBus), resets.get(ofBus));
        HarnessStreams streams = new HarnessStreams(harness, clk, rst, block.shape().streams());
        HarnessInitiators initiators = new HarnessInitiators(harness, clk, rst, platform, block);
        Map<String, Expression> ins = new LinkedHashMap<>();
        Map<String, Net> outs = new LinkedHashMap<>();
        List<Line> inputs = new ArrayList<>();
        List<Line> outputs = new ArrayList<>();
        for (Module.Port port : modules.getLast().ports()) {
            String name = port.net().name();
            int bits = port.net().bits();
            boolean isInput = port.way() == Module.Way.INPUT;
            Net ofRegisters =
                    form != null && name.startsWith(form.name() + "_")
                            ? nets.get(name.substring(form.name().length() + 1))
                            : null;
            Net signal = ofRegisters != null ? ofRegisters : initiators.net(name);
            if (streams.take(port)) {
                if (isInput) {
                    ins.put(name, streams.net(name).read());
                } else {
                    outs.put(name, streams.net(name));
                }
            } else if (signal != null) {
                if (isInput) {
                    ins.put(name, signal.read());
                } else {
                    outs.put(name, signal);
                }
            } else if (isInput && clocks.ofInput(name) != null) {
                ins.put(name, pulses.get(clocks.ofInput(name)).read());
            } else if (isInput && clocks.ofReset(name) != null) {
                ins.put(name, resets.get(clocks.ofReset(name)).read());
            } else if (bits > WIDEST) {
                return Optional.empty();
            } else if (isInput) {
                ins.put(name, harness.input("in" + inputs.size(), bits).read());
                inputs.add(new Line(name, bits));
            } else {
                outs.put(name, harness.output("out" + outputs.size(), bits));
                outputs.add(new Line(name, bits));
            }
        }
        harness.instance("harness_block", "block", Map.of(), ins, outs);
        List<HarnessStream> ends = streams.ends(inputs, outputs);
        List<HarnessInitiator> asks = initiators.ends(inputs, outputs);
        StringBuilder text = new StringBuilder();
        modules.forEach(each -> text.append(each.text()).append('\n'));
        text.append(harness.text());
        files.put("harness.v", text.toString());
        return Optional.of(
                new BlockHarness(
                        files,
                        VhdlEntity.of(platform, block),
                        clocks,
                        List.copyOf(inputs),
                        List.copyOf(outputs),
                        ends,
                        asks,
                        addressBits));
    }

    /** What does the accesses, and the nets of the bus to the block, by the names of signals; none without registers. */
    private static Map<String, Net> bus(
            ElaboratedPlatform platform,
            ElaboratedBlock block,
            SizedInterface form,
            Module harness,
            Net clk,
            Net rst) {
        Map<String, Net> access = new LinkedHashMap<>();
        for (Signal signal : Signals.ACCESS) {
            int bits =
                    form == null
                            ? signal.bits(Integer.SIZE, Integer.SIZE)
                            : signal.bits(
                                    Interface.of(platform, block, form).addressBits(),
                                    Integer.SIZE);
            access.put(
                    signal.name(),
                    signal.fromInitiator()
                            ? harness.input(signal.name(), bits)
                            : harness.output(signal.name(), bits));
        }
        Map<String, Net> nets = new LinkedHashMap<>();
        if (form == null) {
            for (Signal signal : Signals.ACCESS) {
                Net net = access.get(signal.name());
                if (!signal.fromInitiator()) {
                    harness.assign(net, Expression.constant(net.bits(), 0));
                }
            }
            return nets;
        }
        Interface bus = Interface.of(platform, block, form);
        for (Signal signal : bus.signals()) {
            int bits = signal.bits(bus.addressBits(), bus.dataBits());
            nets.put(signal.name(), harness.wire("bus_" + signal.name(), bits));
        }
        BusEnd.initiator(harness, "accesses", bus, clk, rst, access, nets);
        return nets;
    }
}
