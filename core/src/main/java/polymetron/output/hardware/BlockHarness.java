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
 * A block alone, with plain accesses in front of its registers, so that a program can step it: one clock, one reset, the access of
 * {@link Signals#ACCESS}, and inputs and outputs by number. What has several clocks, moves data by itself or has streams cannot
 * stand alone.
 *
 * @param files Verilog and VHDL by name; {@code harness.v} has the module {@code harness}
 * @param entities what of the VHDL the Verilog uses
 * @param inputs names of ports that come in, in the order of the harness's {@code in0}, {@code in1} …
 * @param outputs likewise for {@code out0} …
 */
public record BlockHarness(
        SortedMap<String, String> files,
        List<VhdlEntity> entities,
        List<Line> inputs,
        List<Line> outputs,
        int addressBits) {
    private static final int WIDEST = 64;
    private static final String NO_FINGERPRINT = "0".repeat(16);

    /** A port of the block. */
    public record Line(String name, int bits) {}

    /**
     * @param form the target behind which the registers are
     * @return empty for a block that cannot stand alone
     */
    public static Optional<BlockHarness> of(
            ElaboratedPlatform platform, ElaboratedBlock block, SizedInterface form) {
        boolean isAlone =
                block.type().hardware() != null
                        && block.type().clocks().size() == 1
                        && block.type().clockOutputs().isEmpty()
                        && block.type().resetOutputs().isEmpty()
                        && block.shape().streams().isEmpty()
                        && block.shape().busInterfaces().equals(List.of(form))
                        && form.isTarget()
                        && form.dataWidth() == Integer.SIZE;
        return isAlone ? build(platform, block, form) : Optional.empty();
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
        Interface bus = Interface.of(platform, block, form);
        Module harness = new Module("harness");
        Net clk = harness.input("clk", 1);
        Net rst = harness.input("rst", 1);
        Map<String, Net> access = new LinkedHashMap<>();
        for (Signal signal : Signals.ACCESS) {
            int bits = signal.bits(bus.addressBits(), bus.dataBits());
            access.put(
                    signal.name(),
                    signal.fromInitiator()
                            ? harness.input(signal.name(), bits)
                            : harness.output(signal.name(), bits));
        }
        Map<String, Net> nets = new LinkedHashMap<>();
        for (Signal signal : bus.signals()) {
            int bits = signal.bits(bus.addressBits(), bus.dataBits());
            nets.put(signal.name(), harness.wire("bus_" + signal.name(), bits));
        }
        BusEnd.initiator(harness, "accesses", bus, clk, rst, access, nets);
        Map<String, Expression> ins = new LinkedHashMap<>();
        Map<String, Net> outs = new LinkedHashMap<>();
        List<Line> inputs = new ArrayList<>();
        List<Line> outputs = new ArrayList<>();
        for (Module.Port port : modules.getLast().ports()) {
            String name = port.net().name();
            int bits = port.net().bits();
            boolean isInput = port.way() == Module.Way.INPUT;
            Net ofBus =
                    name.startsWith(form.name() + "_")
                            ? nets.get(name.substring(form.name().length() + 1))
                            : null;
            if (ofBus != null) {
                if (isInput) {
                    ins.put(name, ofBus.read());
                } else {
                    outs.put(name, ofBus);
                }
            } else if (isInput
                    && name.equals(BlockModule.port(block.type().clocks().getFirst().name()))) {
                ins.put(name, clk.read());
            } else if (isInput
                    && block.type().resets().stream()
                            .anyMatch(each -> BlockModule.port(each.name()).equals(name))) {
                ins.put(name, rst.read());
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
        StringBuilder text = new StringBuilder();
        modules.forEach(each -> text.append(each.text()).append('\n'));
        text.append(harness.text());
        files.put("harness.v", text.toString());
        return Optional.of(
                new BlockHarness(
                        files,
                        VhdlEntity.of(platform, block),
                        List.copyOf(inputs),
                        List.copyOf(outputs),
                        bus.addressBits()));
    }
}
