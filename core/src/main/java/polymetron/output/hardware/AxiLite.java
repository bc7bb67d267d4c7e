package polymetron.output.hardware;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import polymetron.verilog.Module;
import polymetron.verilog.Net;

/**
 * The signals of an AXI4-Lite interface (Arm IHI 0022, B1) without those that no block of the library looks at (AxPROT).
 */
final class AxiLite {
    private AxiLite() {}

    /**
     * A signal.
     *
     * @param fromInitiator whether the initiator drives it
     * @param bits 0 for an address, -1 for data, -2 for a strobe of each byte
     * @param isWrite whether it belongs to writes
     */
    record Signal(String name, boolean fromInitiator, int bits, boolean isWrite) {
        boolean isHandshake() {
            return name.endsWith("valid") || name.endsWith("ready");
        }

        int width(int addressBits, int dataBits) {
            return switch (bits) {
                case ADDRESS -> addressBits;
                case DATA -> dataBits;
                case STROBE -> dataBits / 8;
                default -> bits;
            };
        }
    }

    private static final int ADDRESS = 0;
    private static final int DATA = -1;
    private static final int STROBE = -2;

    static final List<Signal> SIGNALS =
            List.of(
                    new Signal("awaddr", true, ADDRESS, true),
                    new Signal("awvalid", true, 1, true),
                    new Signal("awready", false, 1, true),
                    new Signal("wdata", true, DATA, true),
                    new Signal("wstrb", true, STROBE, true),
                    new Signal("wvalid", true, 1, true),
                    new Signal("wready", false, 1, true),
                    new Signal("bresp", false, 2, true),
                    new Signal("bvalid", false, 1, true),
                    new Signal("bready", true, 1, true),
                    new Signal("araddr", true, ADDRESS, false),
                    new Signal("arvalid", true, 1, false),
                    new Signal("arready", false, 1, false),
                    new Signal("rdata", false, DATA, false),
                    new Signal("rresp", false, 2, false),
                    new Signal("rvalid", false, 1, false),
                    new Signal("rready", true, 1, false));

    /**
     * Ports of a module for an interface, by the names of the signals.
     *
     * @param drives whether the module drives what an initiator drives
     * @param readsOnly whether there are no writes
     */
    static Map<String, Net> ports(
            Module module,
            String prefix,
            boolean drives,
            boolean readsOnly,
            int addressBits,
            int dataBits) {
        Map<String, Net> ports = new LinkedHashMap<>();
        for (Signal signal : SIGNALS) {
            if (readsOnly && signal.isWrite()) {
                continue;
            }
            String name = prefix + "_" + signal.name();
            int bits = signal.width(addressBits, dataBits);
            ports.put(
                    signal.name(),
                    signal.fromInitiator() == drives
                            ? module.output(name, bits)
                            : module.input(name, bits));
        }
        return ports;
    }
}
