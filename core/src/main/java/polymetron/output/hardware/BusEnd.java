package polymetron.output.hardware;

import java.util.Map;
import polymetron.verilog.Module;
import polymetron.verilog.Net;

/** The end of a bus in front of an access, or behind one, as an instance of the module of its protocol. */
final class BusEnd {
    /** Beside an access of a protocol with bursts: whether the next one is to the following word. */
    static final String MORE = "more";

    private BusEnd() {}

    /**
     * What comes over a bus goes on as an access.
     *
     * @param access with {@link #MORE} where the target looks at it
     */
    static void target(
            Module module,
            String instance,
            Interface form,
            Net clk,
            Net rst,
            Map<String, Net> bus,
            Map<String, Net> access) {
        Cable cable =
                cable(module, instance, form, clk, rst)
                        .connect(
                                Signals.of(form.protocol()),
                                "s_",
                                bus,
                                false,
                                form.addressBits(),
                                form.dataBits())
                        .connect(
                                Signals.ACCESS,
                                "",
                                access,
                                true,
                                form.addressBits(),
                                form.dataBits());
        if (form.protocol().carriesBursts()) {
            Net more = access.get(MORE);
            cable.out(MORE, more == null ? module.wire("unused_" + instance + "_more", 1) : more);
        }
        cable.to(moduleName(form, "target"));
    }

    /** An access goes out on a bus. */
    static void initiator(
            Module module,
            String instance,
            Interface form,
            Net clk,
            Net rst,
            Map<String, Net> access,
            Map<String, Net> bus) {
        cable(module, instance, form, clk, rst)
                .connect(Signals.ACCESS, "", access, false, form.addressBits(), form.dataBits())
                .connect(
                        Signals.of(form.protocol()),
                        "m_",
                        bus,
                        true,
                        form.addressBits(),
                        form.dataBits())
                .to(moduleName(form, "initiator"));
    }

    /**
     * The same of accesses that follow each other in bursts.
     *
     * @param more how many of them follow
     */
    static void bursts(
            Module module,
            String instance,
            Interface form,
            Net clk,
            Net rst,
            Map<String, Net> access,
            Net more,
            Map<String, Net> bus) {
        cable(module, instance, form, clk, rst)
                .connect(Signals.ACCESS, "", access, false, form.addressBits(), form.dataBits())
                .in("more", more)
                .connect(
                        Signals.of(form.protocol()),
                        "m_",
                        bus,
                        true,
                        form.addressBits(),
                        form.dataBits())
                .to(moduleName(form, "burst_initiator"));
    }

    private static Cable cable(Module module, String instance, Interface form, Net clk, Net rst) {
        return new Cable(module, instance)
                .parameter("ADDRESS_BITS", form.addressBits())
                .parameter("DATA_BITS", form.dataBits())
                .in("clk", clk)
                .in("rst", rst);
    }

    /** Name of the module of the end that answers. */
    static String target(Interface form) {
        return moduleName(form, "target");
    }

    private static String moduleName(Interface form, String end) {
        return "polymetron_" + form.protocol().toString().replace('-', '_') + "_" + end;
    }
}
