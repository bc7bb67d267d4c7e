package polymetron.output.hardware;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.SizedInterface;
import polymetron.output.hardware.BlockHarness.Line;
import polymetron.verilog.Module;
import polymetron.verilog.Net;

/** The bus interfaces of a block that stands alone at which it asks: a target for each, with a plain access behind it. */
final class HarnessInitiators {
    private static final int WIDEST = 64;

    /** Signals of an access in the order of the numbers of {@link HarnessInitiator}. */
    private static final List<String> ASKED =
            List.of("request", "write", "address", "value", "bytes");

    private static final List<String> ANSWERED = List.of("done", "answer", "error");

    private final Module harness;
    private final Net clk;
    private final Net rst;
    private final Map<SizedInterface, Interface> forms = new LinkedHashMap<>();
    private final Map<String, Net> nets = new LinkedHashMap<>();

    HarnessInitiators(
            Module harness, Net clk, Net rst, ElaboratedPlatform platform, ElaboratedBlock block) {
        this.harness = harness;
        this.clk = clk;
        this.rst = rst;
        for (SizedInterface form : of(block)) {
            Interface bus = Interface.of(platform, block, form);
            forms.put(form, bus);
            for (Signal signal : bus.signals()) {
                String name = form.name() + "_" + signal.name();
                nets.put(
                        name,
                        harness.wire(
                                "bus_" + name, signal.bits(bus.addressBits(), bus.dataBits())));
            }
        }
    }

    static List<SizedInterface> of(ElaboratedBlock block) {
        return block.shape().busInterfaces().stream()
                .filter(each -> !each.isTarget() && each.isForBus())
                .toList();
    }

    /** Whether words are at most 64 bits wide, and all are in the clock in which the block is stepped. */
    static boolean canBeServed(ElaboratedBlock block, HarnessClocks clocks) {
        return of(block).stream()
                .allMatch(
                        each ->
                                each.dataWidth() <= WIDEST
                                        && !each.onlyFetches()
                                        && clocks.isStepped(each.type().clock()));
    }

    /** The net of a port of the block that is one of theirs; null for any other. */
    Net net(String port) {
        return nets.get(port);
    }

    /**
     * Makes the targets, with their inputs and outputs behind those that there are.
     *
     * @param inputs what the harness has by number; grows
     */
    List<HarnessInitiator> ends(List<Line> inputs, List<Line> outputs) {
        List<HarnessInitiator> ends = new ArrayList<>();
        forms.forEach((form, bus) -> ends.add(end(form.name(), bus, inputs, outputs)));
        return List.copyOf(ends);
    }

    private HarnessInitiator end(
            String name, Interface bus, List<Line> inputs, List<Line> outputs) {
        int request = outputs.size();
        int done = inputs.size();
        Map<String, Integer> bits = new LinkedHashMap<>();
        Signals.ACCESS.forEach(
                each -> bits.put(each.name(), each.bits(bus.addressBits(), bus.dataBits())));
        Map<String, Net> access = new LinkedHashMap<>();
        for (String each : ASKED) {
            access.put(each, harness.output("out" + outputs.size(), bits.get(each)));
            outputs.add(new Line(name + "." + each, bits.get(each)));
        }
        for (String each : ANSWERED) {
            access.put(each, harness.input("in" + inputs.size(), bits.get(each)));
            inputs.add(new Line(name + "." + each, bits.get(each)));
        }
        Map<String, Net> ofBus = new LinkedHashMap<>();
        bus.signals().forEach(each -> ofBus.put(each.name(), nets.get(name + "_" + each.name())));
        BusEnd.target(harness, "serves_" + name, bus, clk, rst, ofBus, access);
        return new HarnessInitiator(name, bus.dataBits(), request, done);
    }
}
