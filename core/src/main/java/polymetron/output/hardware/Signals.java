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

    /** Whether there is hardware for buses of a protocol. */
    static boolean isBuilt(Protocol protocol) {
        return protocol == Protocol.AXI4_LITE || protocol == Protocol.APB;
    }

    /**
     * @throws IllegalArgumentException for a protocol that is not built
     */
    static List<Signal> of(Protocol protocol) {
        return switch (protocol) {
            case AXI4_LITE -> AXI4_LITE;
            case APB -> APB;
            default -> throw new IllegalArgumentException(protocol.title());
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
