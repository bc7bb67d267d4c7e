package polymetron.output.hardware;

import java.util.Map;
import polymetron.bus.Adapter;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.ElaboratedBus;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.InterfaceRef;
import polymetron.elaborate.SizedInterface;
import polymetron.verilog.Module;
import polymetron.verilog.Net;

/**
 * What is between an interface and its bus where they differ: the end of the one that requests, the width, the clock, and the
 * end of the one that answers. The width changes in the clock of the block, so that the bus is crossed into once.
 */
final class AdapterModule {
    private final Module module;
    private final Interface upper;
    private final Interface lower;
    private Net clk;
    private Net rst;
    private Map<String, Net> access;
    private int dataBits;

    private AdapterModule(String name, Interface upper, Interface lower) {
        this.module = new Module(name);
        this.upper = upper;
        this.lower = lower;
    }

    /** Name of the module of an interface's adapters; no name has two underscores in a row. */
    static String name(String top, ElaboratedBlock block, SizedInterface form) {
        return top + "_" + block.name() + "_" + form.name() + "__adapter";
    }

    /**
     * Its ports are {@code clk} and {@code rst} of the side that requests, {@code far_clk} and {@code far_rst} of the other where the
     * clock differs, and both sides as {@code s_} and {@code m_}.
     */
    static Module of(
            ElaboratedPlatform platform,
            ElaboratedBus bus,
            ElaboratedBlock block,
            SizedInterface form,
            String name) {
        Interface own = Interface.of(platform, block, form);
        AdapterModule adapter =
                form.isTarget()
                        ? new AdapterModule(name, own.on(bus), own)
                        : new AdapterModule(name, own, own.on(bus));
        boolean crosses =
                bus.adaptersOf(new InterfaceRef(block.name(), form.name())).stream()
                        .anyMatch(each -> each.sort() == Adapter.Sort.CLOCK);
        adapter.build(crosses, form.isTarget());
        return adapter.module;
    }

    private void build(boolean crosses, boolean isTarget) {
        clk = module.input("clk", 1);
        rst = module.input("rst", 1);
        Net farClk = crosses ? module.input("far_clk", 1) : clk;
        Net farRst = crosses ? module.input("far_rst", 1) : rst;
        Map<String, Net> from = Signals.ports(module, "s", upper, false);
        Map<String, Net> to = Signals.ports(module, "m", lower, true);
        dataBits = upper.dataBits();
        access = Signals.access(module, "begin", upper.addressBits(), dataBits);
        BusEnd.target(module, "upper_end", upper, clk, rst, from, access);
        if (!isTarget) {
            width();
        }
        if (crosses) {
            cross(farClk, farRst);
        }
        if (isTarget) {
            width();
        }
        BusEnd.initiator(module, "lower_end", lower, clk, rst, access, to);
    }

    private void cross(Net farClk, Net farRst) {
        int bits = upper.addressBits();
        Map<String, Net> far = Signals.access(module, "crossed", bits, dataBits);
        new Cable(module, "crossing")
                .parameter("ADDRESS_BITS", bits)
                .parameter("DATA_BITS", dataBits)
                .in("near_clk", clk)
                .in("near_rst", rst)
                .in("far_clk", farClk)
                .in("far_rst", farRst)
                .connect(Signals.ACCESS, "", access, false, bits, dataBits)
                .connect(Signals.ACCESS, "far_", far, true, bits, dataBits)
                .to("polymetron_crossing");
        access = far;
        clk = farClk;
        rst = farRst;
    }

    private void width() {
        int wanted = lower.dataBits();
        if (dataBits == wanted) {
            return;
        }
        int bits = upper.addressBits();
        boolean narrows = dataBits > wanted;
        Map<String, Net> other =
                Signals.access(module, narrows ? "narrowed" : "widened", bits, wanted);
        Cable cable =
                new Cable(module, "width")
                        .parameter("ADDRESS_BITS", bits)
                        .parameter("WIDE", Math.max(dataBits, wanted))
                        .parameter("NARROW", Math.min(dataBits, wanted));
        if (narrows) {
            cable.in("clk", clk).in("rst", rst);
        }
        cable.connect(Signals.ACCESS, "", access, false, bits, dataBits)
                .connect(Signals.ACCESS, narrows ? "narrow_" : "wide_", other, true, bits, wanted)
                .to(narrows ? "polymetron_narrow" : "polymetron_widen");
        access = other;
        dataBits = wanted;
    }
}
