package polymetron.ownblock;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.regex.Pattern;
import polymetron.bus.Protocol;
import polymetron.hdl.HdlPort;
import polymetron.output.hardware.ProtocolSignals;
import polymetron.verilog.Module;

/**
 * Ports of a module that are the signals of one bus interface: they are called like those of a protocol behind one prefix, go in
 * the directions of one of its ends, and have all that the protocol cannot do without.
 *
 * @param signals port of the module by the signal that it is
 */
record BusSignals(
        String prefix, Protocol protocol, boolean isTarget, Map<String, HdlPort> signals) {
    /** Signals without which there is no transfer. */
    private static final Map<Protocol, Set<String>> NEEDED =
            Map.of(
                    Protocol.AXI4,
                            Set.of(
                                    "awaddr", "awlen", "awvalid", "awready", "wdata", "wvalid",
                                    "wready", "bvalid", "bready", "araddr", "arlen", "arvalid",
                                    "arready", "rdata", "rlast", "rvalid", "rready"),
                    Protocol.AXI4_LITE,
                            Set.of(
                                    "awaddr", "awvalid", "awready", "wdata", "wvalid", "wready",
                                    "bvalid", "bready", "araddr", "arvalid", "arready", "rdata",
                                    "rvalid", "rready"),
                    Protocol.AHB_LITE, Set.of("haddr", "htrans", "hwrite", "hwdata", "hrdata"),
                    Protocol.APB, Set.of("paddr", "psel", "penable", "pwrite", "pwdata", "prdata"),
                    Protocol.WISHBONE, Set.of("cyc", "stb", "we", "adr", "dat_w", "dat_r", "ack"));

    private static final Pattern OF_AXI =
            Pattern.compile(
                    "(aw|ar)(prot|cache|lock|qos|region|user|snoop|id)|(w|b|r)(user|id)(_[io])?");

    private static final Map<Protocol, Pattern> IGNORED =
            Map.of(
                    Protocol.AXI4, OF_AXI,
                    Protocol.AXI4_LITE, OF_AXI,
                    Protocol.AHB_LITE, Pattern.compile("h(prot|mastlock|master|nonsec)(_[io])?"),
                    Protocol.APB, Pattern.compile("p(prot|wakeup|[arw]user)(_[io])?"),
                    Protocol.WISHBONE, Pattern.compile("(cti|bte|lock|tg[acd]|rty)(_[io])?"));

    /** All that are found, the protocols with the most signals first, so that AXI4 is not taken for AXI4-Lite. */
    static List<BusSignals> of(List<HdlPort> ports) {
        List<BusSignals> found = new ArrayList<>();
        Set<String> taken = new TreeSet<>();
        for (Protocol protocol :
                List.of(
                        Protocol.AXI4,
                        Protocol.AXI4_LITE,
                        Protocol.AHB_LITE,
                        Protocol.WISHBONE,
                        Protocol.APB)) {
            byPrefix(ports.stream().filter(port -> !taken.contains(port.name())).toList(), protocol)
                    .forEach(
                            (prefix, signals) ->
                                    of(prefix, protocol, signals)
                                            .ifPresent(
                                                    bus -> {
                                                        found.add(bus);
                                                        bus.signals()
                                                                .values()
                                                                .forEach(
                                                                        port ->
                                                                                taken.add(
                                                                                        port
                                                                                                .name()));
                                                    }));
        }
        return found;
    }

    /**
     * Ports that would be a bus interface but for a few signals, which are missing or go the other way.
     *
     * @param ports everything behind the prefix that is a signal of the protocol
     * @param why what the interface lacks
     */
    record Almost(List<HdlPort> ports, String why) {}

    /** Everything behind a prefix that is a signal of the protocol, needed or not. */
    private static List<HdlPort> ofPrefix(List<HdlPort> ports, String prefix, Protocol protocol) {
        return ports.stream()
                .filter(
                        port ->
                                spellings(port, protocol).stream()
                                                .anyMatch(each -> each.prefix().equals(prefix))
                                        || isIgnored(port, prefix, protocol))
                .toList();
    }

    private static boolean isIgnored(HdlPort port, String prefix, Protocol protocol) {
        String name = port.name().toLowerCase(Locale.ROOT);
        return name.startsWith(prefix)
                && IGNORED.get(protocol).matcher(name.substring(prefix.length())).matches();
    }

    /** Most signals that may be lacking, so that it is still plain what is meant. */
    private static final int MOST_LACKING = 3;

    static List<Almost> almost(List<HdlPort> ports) {
        List<Almost> found = new ArrayList<>();
        Set<String> taken = new TreeSet<>();
        for (Protocol protocol : Protocol.values()) {
            byPrefix(ports, protocol)
                    .forEach(
                            (prefix, signals) ->
                                    lacks(prefix, protocol, signals)
                                            .map(
                                                    why ->
                                                            new Almost(
                                                                    ofPrefix(
                                                                            ports, prefix,
                                                                            protocol),
                                                                    why))
                                            .filter(each -> taken.add(prefix))
                                            .ifPresent(found::add));
        }
        return found;
    }

    /** What a bus interface lacks, in words; empty where it is too much for it to be meant. */
    private static Optional<String> lacks(
            String prefix, Protocol protocol, Map<String, List<HdlPort>> signals) {
        Set<String> needed = new TreeSet<>(NEEDED.get(protocol));
        for (boolean isTarget : new boolean[] {true, false}) {
            List<String> lacking = new ArrayList<>();
            for (String signal : needed) {
                boolean goesIn = ProtocolSignals.isOfInitiator(protocol, signal) == isTarget;
                List<HdlPort> its = signals.getOrDefault(signal, List.of());
                if (its.isEmpty()) {
                    lacking.add("%s%s is missing".formatted(prefix, signal));
                } else if (its.stream().noneMatch(port -> goesIn == isInput(port))) {
                    lacking.add(
                            "%s has to be an %s"
                                    .formatted(its.getFirst().name(), goesIn ? "input" : "output"));
                }
            }
            if (lacking.size() <= MOST_LACKING && needed.size() > 3 * lacking.size()) {
                return Optional.of(
                        "%s of %s but for this: %s"
                                .formatted(
                                        isTarget ? "target" : "initiator",
                                        protocol.title(),
                                        String.join(", ", lacking)));
            }
        }
        return Optional.empty();
    }

    private static boolean isInput(HdlPort port) {
        return port.way() == Module.Way.INPUT;
    }

    /** Ports that are spelled like signals of a protocol, by their prefixes and the signals. */
    private static Map<String, Map<String, List<HdlPort>>> byPrefix(
            List<HdlPort> ports, Protocol protocol) {
        Map<String, Map<String, List<HdlPort>>> found = new LinkedHashMap<>();
        for (HdlPort port : ports) {
            for (Spelling each : spellings(port, protocol)) {
                found.computeIfAbsent(each.prefix(), prefix -> new HashMap<>())
                        .computeIfAbsent(each.signal(), signal -> new ArrayList<>())
                        .add(port);
            }
        }
        return found;
    }

    private record Spelling(String prefix, String signal) {}

    /** What a port may be: a prefix, the name of a signal, and perhaps which way it goes. */
    private static List<Spelling> spellings(HdlPort port, Protocol protocol) {
        List<Spelling> spellings = new ArrayList<>();
        String name = port.name().toLowerCase(Locale.ROOT);
        for (String signal : ProtocolSignals.names(protocol)) {
            for (String written : written(protocol, signal, port)) {
                for (String way : new String[] {"", "_i", "_o", "_in", "_out"}) {
                    if (name.endsWith(written + way)) {
                        String prefix =
                                name.substring(0, name.length() - written.length() - way.length());
                        if (prefix.isEmpty() || prefix.endsWith("_")) {
                            spellings.add(new Spelling(prefix, signal));
                        }
                    }
                }
            }
        }
        return spellings;
    }

    /** Data of Wishbone are called by the way that they go, seen from the module (B4, 2.2). */
    private static List<String> written(Protocol protocol, String signal, HdlPort port) {
        if (protocol == Protocol.WISHBONE && signal.startsWith("dat_")) {
            boolean in = isInput(port);
            return List.of(signal, in ? "dat_i" : "dat_o", "dat");
        }
        return protocol == Protocol.AHB_LITE && signal.equals("hreadyout")
                // A single ready signal is that of the target (IHI 0033, 4.1).
                ? List.of("hreadyout", "hready_out", "hready")
                : List.of(signal);
    }

    private static Optional<BusSignals> of(
            String prefix, Protocol protocol, Map<String, List<HdlPort>> signals) {
        for (boolean isTarget : new boolean[] {true, false}) {
            Map<String, HdlPort> its = new LinkedHashMap<>();
            for (String signal : ProtocolSignals.names(protocol)) {
                boolean goesIn = ProtocolSignals.isOfInitiator(protocol, signal) == isTarget;
                signals.getOrDefault(signal, List.of()).stream()
                        .filter(port -> isInput(port) == goesIn)
                        .findFirst()
                        .ifPresent(port -> its.put(signal, port));
            }
            if (its.keySet().containsAll(NEEDED.get(protocol))) {
                return Optional.of(new BusSignals(prefix, protocol, isTarget, its));
            }
        }
        return Optional.empty();
    }

    /**
     * Ports behind the same prefix that the standards have besides, and that no bus here looks at: protection, caching, quality of
     * service, users' own (Arm IHI 0022 A4 to A8, IHI 0024 2.1, IHI 0033 2.2; Wishbone B4 2.2).
     */
    List<HdlPort> ignored(List<HdlPort> ports) {
        return ports.stream()
                .filter(port -> !signals.containsValue(port))
                .filter(port -> isIgnored(port, prefix, protocol))
                .toList();
    }
}
