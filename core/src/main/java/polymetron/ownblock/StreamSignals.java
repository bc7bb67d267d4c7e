package polymetron.ownblock;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import polymetron.hdl.HdlPort;
import polymetron.verilog.Module;

/**
 * Ports of a module that are one stream (AXI4-Stream, Arm IHI 0051, 2.2): TDATA and TVALID behind one prefix, with what else of
 * TREADY, TLAST and TKEEP is there.
 */
record StreamSignals(String prefix, boolean isSource, Map<String, HdlPort> signals) {
    private static final List<String> NAMES =
            List.of("tdata", "tvalid", "tready", "tlast", "tkeep");

    static List<StreamSignals> of(List<HdlPort> ports) {
        Map<String, Map<String, HdlPort>> byPrefix = new LinkedHashMap<>();
        for (HdlPort port : ports) {
            String name = port.name().toLowerCase(Locale.ROOT).replaceFirst("_[io]$", "");
            for (String signal : NAMES) {
                if (name.endsWith(signal)) {
                    String prefix = name.substring(0, name.length() - signal.length());
                    byPrefix.computeIfAbsent(prefix, each -> new LinkedHashMap<>())
                            .putIfAbsent(signal, port);
                }
            }
        }
        List<StreamSignals> found = new ArrayList<>();
        byPrefix.forEach(
                (prefix, signals) -> {
                    if (signals.containsKey("tdata") && signals.containsKey("tvalid")) {
                        boolean isSource = signals.get("tvalid").way() == Module.Way.OUTPUT;
                        signals.entrySet()
                                .removeIf(
                                        each ->
                                                (each.getValue().way() == Module.Way.OUTPUT)
                                                        != (isSource
                                                                != each.getKey().equals("tready")));
                        if (signals.containsKey("tdata")) {
                            found.add(new StreamSignals(prefix, isSource, signals));
                        }
                    }
                });
        return found;
    }
}
