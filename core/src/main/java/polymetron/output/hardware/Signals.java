package polymetron.output.hardware;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import polymetron.bus.Protocol;
import polymetron.verilog.Module;
import polymetron.verilog.Net;

/**
 * The signals of bus interfaces by protocol, without those that no block of the library looks at (protection), and of the
 * plain access that everything meets in: a request that stays as it is until it is done.
 */
final class Signals {
    /** AXI4-Lite: Arm IHI 0022, B1. */
    static final List<Signal> AXI4_LITE =
            List.of(
                    new Signal("awaddr", true, Signal.Width.ADDRESS, true),
                    new Signal("awvalid", true, Signal.Width.ONE, true),
                    new Signal("awready", false, Signal.Width.ONE, true),
                    new Signal("wdata", true, Signal.Width.DATA, true),
                    new Signal("wstrb", true, Signal.Width.BYTES, true),
                    new Signal("wvalid", true, Signal.Width.ONE, true),
                    new Signal("wready", false, Signal.Width.ONE, true),
                    new Signal("bresp", false, Signal.Width.TWO, true),
                    new Signal("bvalid", false, Signal.Width.ONE, true),
                    new Signal("bready", true, Signal.Width.ONE, true),
                    new Signal("araddr", true, Signal.Width.ADDRESS, false),
                    new Signal("arvalid", true, Signal.Width.ONE, false),
                    new Signal("arready", false, Signal.Width.ONE, false),
                    new Signal("rdata", false, Signal.Width.DATA, false),
                    new Signal("rresp", false, Signal.Width.TWO, false),
                    new Signal("rvalid", false, Signal.Width.ONE, false),
                    new Signal("rready", true, Signal.Width.ONE, false));

    /** AXI4: Arm IHI 0022, A2; without exclusive accesses, which would be answered with OKAY. */
    static final List<Signal> AXI4 =
            List.of(
                    new Signal("awid", true, Signal.Width.EIGHT, true),
                    new Signal("awaddr", true, Signal.Width.ADDRESS, true),
                    new Signal("awlen", true, Signal.Width.EIGHT, true),
                    new Signal("awsize", true, Signal.Width.THREE, true),
                    new Signal("awburst", true, Signal.Width.TWO, true),
                    new Signal("awvalid", true, Signal.Width.ONE, true),
                    new Signal("awready", false, Signal.Width.ONE, true),
                    new Signal("wdata", true, Signal.Width.DATA, true),
                    new Signal("wstrb", true, Signal.Width.BYTES, true),
                    new Signal("wlast", true, Signal.Width.ONE, true),
                    new Signal("wvalid", true, Signal.Width.ONE, true),
                    new Signal("wready", false, Signal.Width.ONE, true),
                    new Signal("bid", false, Signal.Width.EIGHT, true),
                    new Signal("bresp", false, Signal.Width.TWO, true),
                    new Signal("bvalid", false, Signal.Width.ONE, true),
                    new Signal("bready", true, Signal.Width.ONE, true),
                    new Signal("arid", true, Signal.Width.EIGHT, false),
                    new Signal("araddr", true, Signal.Width.ADDRESS, false),
                    new Signal("arlen", true, Signal.Width.EIGHT, false),
                    new Signal("arsize", true, Signal.Width.THREE, false),
                    new Signal("arburst", true, Signal.Width.TWO, false),
                    new Signal("arvalid", true, Signal.Width.ONE, false),
                    new Signal("arready", false, Signal.Width.ONE, false),
                    new Signal("rid", false, Signal.Width.EIGHT, false),
                    new Signal("rdata", false, Signal.Width.DATA, false),
                    new Signal("rresp", false, Signal.Width.TWO, false),
                    new Signal("rlast", false, Signal.Width.ONE, false),
                    new Signal("rvalid", false, Signal.Width.ONE, false),
                    new Signal("rready", true, Signal.Width.ONE, false));

    /**
     * AHB-Lite: Arm IHI 0033, 2. Both ends have the signals of a subordinate: a manager drives its HSEL with 1, and HREADY with what
     * it gets.
     */
    static final List<Signal> AHB_LITE =
            List.of(
                    new Signal("hsel", true, Signal.Width.ONE, false),
                    new Signal("haddr", true, Signal.Width.ADDRESS, false),
                    new Signal("htrans", true, Signal.Width.TWO, false),
                    new Signal("hwrite", true, Signal.Width.ONE, true),
                    new Signal("hsize", true, Signal.Width.THREE, false),
                    new Signal("hburst", true, Signal.Width.THREE, false),
                    new Signal("hwdata", true, Signal.Width.DATA, true),
                    new Signal("hready", true, Signal.Width.ONE, false),
                    new Signal("hreadyout", false, Signal.Width.ONE, false),
                    new Signal("hrdata", false, Signal.Width.DATA, false),
                    new Signal("hresp", false, Signal.Width.ONE, false));

    /** Wishbone B4, 2.2; what it calls DAT is {@code dat_w} from the MASTER and {@code dat_r} to it. */
    static final List<Signal> WISHBONE =
            List.of(
                    new Signal("cyc", true, Signal.Width.ONE, false),
                    new Signal("stb", true, Signal.Width.ONE, false),
                    new Signal("we", true, Signal.Width.ONE, true),
                    new Signal("adr", true, Signal.Width.ADDRESS, false),
                    new Signal("sel", true, Signal.Width.BYTES, false),
                    new Signal("dat_w", true, Signal.Width.DATA, true),
                    new Signal("ack", false, Signal.Width.ONE, false),
                    new Signal("err", false, Signal.Width.ONE, false),
                    new Signal("dat_r", false, Signal.Width.DATA, false));

    /** APB with PSTRB and PSLVERR: Arm IHI 0024, 2.1. */
    static final List<Signal> APB =
            List.of(
                    new Signal("paddr", true, Signal.Width.ADDRESS, false),
                    new Signal("psel", true, Signal.Width.ONE, false),
                    new Signal("penable", true, Signal.Width.ONE, false),
                    new Signal("pwrite", true, Signal.Width.ONE, true),
                    new Signal("pwdata", true, Signal.Width.DATA, true),
                    new Signal("pstrb", true, Signal.Width.BYTES, true),
                    new Signal("pready", false, Signal.Width.ONE, false),
                    new Signal("prdata", false, Signal.Width.DATA, false),
                    new Signal("pslverr", false, Signal.Width.ONE, false));

    /** One access. */
    static final List<Signal> ACCESS =
            List.of(
                    new Signal("request", true, Signal.Width.ONE, false),
                    new Signal("write", true, Signal.Width.ONE, true),
                    new Signal("address", true, Signal.Width.ADDRESS, false),
                    new Signal("value", true, Signal.Width.DATA, true),
                    new Signal("bytes", true, Signal.Width.BYTES, true),
                    new Signal("done", false, Signal.Width.ONE, false),
                    new Signal("answer", false, Signal.Width.DATA, false),
                    new Signal("error", false, Signal.Width.ONE, false));

    private Signals() {}

    static List<Signal> of(Protocol protocol) {
        return switch (protocol) {
            case AXI4 -> AXI4;
            case AXI4_LITE -> AXI4_LITE;
            case AHB_LITE -> AHB_LITE;
            case APB -> APB;
            case WISHBONE -> WISHBONE;
        };
    }

    /**
     * Ports of a module for an interface, by the names of the signals.
     *
     * @param drives whether the module drives what an initiator drives
     */
    static Map<String, Net> ports(Module module, String prefix, Interface form, boolean drives) {
        Map<String, Net> ports = new LinkedHashMap<>();
        for (Signal signal : form.signals()) {
            String name = prefix + "_" + signal.name();
            int bits = signal.bits(form.addressBits(), form.dataBits());
            ports.put(
                    signal.name(),
                    signal.fromInitiator() == drives
                            ? module.output(name, bits)
                            : module.input(name, bits));
        }
        return ports;
    }

    /** Nets of a module for an access, by the names of the signals. */
    static Map<String, Net> access(Module module, String prefix, int addressBits, int dataBits) {
        Map<String, Net> nets = new LinkedHashMap<>();
        for (Signal signal : ACCESS) {
            nets.put(
                    signal.name(),
                    module.wire(prefix + "_" + signal.name(), signal.bits(addressBits, dataBits)));
        }
        return nets;
    }
}
