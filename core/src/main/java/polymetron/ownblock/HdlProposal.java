package polymetron.ownblock;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.SortedMap;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.regex.Pattern;
import polymetron.bus.Protocol;
import polymetron.expression.Expression;
import polymetron.expression.ExpressionException;
import polymetron.expression.Value;
import polymetron.hdl.HdlModule;
import polymetron.hdl.HdlParameter;
import polymetron.hdl.HdlPort;
import polymetron.json.Documents;
import polymetron.output.hardware.ProtocolSignals;
import polymetron.verilog.Module;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.JsonNodeFactory;
import tools.jackson.databind.node.ObjectNode;

/**
 * What the ports of a user's module can be, by their names, directions and widths together: clocks, resets,
 * buses, streams, interrupts, and lines that leave the chip. Each has its reason; what is left over is listed. From it come a
 * definition and a module around the other one, {@code NAME_fitted}, which has the ports that the definition asks for: both are
 * a beginning, and their owner's from then on.
 */
public final class HdlProposal {
    private static final Pattern CLOCK =
            Pattern.compile("(.*_)?([aphs]?clk|clock|[aphs]clock)(_i|_in)?\\d?");
    private static final Pattern RESET =
            Pattern.compile(
                    "(.*_)?([aphs]?(rst|reset|resetn|rstn|arst|arstn))(_?(n|ni|b|bar|l))?(_i|_in)?");
    private static final Pattern LOW =
            Pattern.compile(".*(resetn|rstn|_n|_ni|_b|_bar|_l)(_i|_in)?");
    private static final Pattern INTERRUPT = Pattern.compile(".*(irq|intr|interrupt).*");

    /** A kind of board part that lines can go to, or come from, by their name. */
    private record NamedPart(String kind, Module.Way way, Pattern name) {}

    private static final List<NamedPart> NAMED_PARTS =
            List.of(
                    new NamedPart(
                            "lamps",
                            Module.Way.OUTPUT,
                            Pattern.compile("(^|_)(led|lamp|light)s?(_|\\d|$)")),
                    new NamedPart(
                            "buttons",
                            Module.Way.INPUT,
                            Pattern.compile("(^|_)(button|btn|key)s?(_|\\d|$)")),
                    new NamedPart(
                            "switches",
                            Module.Way.INPUT,
                            Pattern.compile("(^|_)(switch|switches|sw)(_|\\d|$)")));

    private static final int SMALLEST = 12;
    private static final int LARGEST = 20;

    /**
     * What a port became.
     *
     * @param port name of the module's port
     * @param became what it is, such as {@code clock clk}; empty for nothing
     * @param why the reason
     */
    public record Reason(String port, String became, String why) {}

    /**
     * @param block definition, files and the module around
     * @param reasons for each port, in their order
     */
    public record Proposed(OwnBlock block, List<Reason> reasons) {}

    private final HdlModule module;
    private final ObjectNode definition = JsonNodeFactory.instance.objectNode();
    private final Map<String, Reason> reasons = new LinkedHashMap<>();
    private final FittedModule fitted;
    private final NamedClocks clockNames = new NamedClocks();

    /** Parameters of the module that the block has as well, by their names in the module. */
    private final Map<String, String> parameters = new TreeMap<>();

    private HdlProposal(HdlModule module) {
        this.module = module;
        this.fitted = new FittedModule(module);
    }

    /**
     * @param files the module's files
     * @param module the one that the block is
     * @param vendor first part of the identity
     */
    public static Proposed of(SortedMap<String, String> files, HdlModule module, String vendor) {
        return new HdlProposal(module).propose(files, vendor);
    }

    private Proposed propose(SortedMap<String, String> files, String vendor) {
        head(vendor);
        List<HdlPort> left = new ArrayList<>(module.ports());
        clocksAndResets(left);
        List<BusSignals> buses = BusSignals.of(left);
        List<StreamSignals> streams = StreamSignals.of(left);
        parameters(buses);
        ArrayNode interfaces = definition.putArray("busInterfaces");
        Set<String> names = new HashSet<>();
        for (BusSignals bus : buses) {
            bus(interfaces, bus, names);
            left.removeAll(bus.signals().values());
            for (HdlPort port : bus.ignored(left)) {
                fitted.tie(port);
                say(
                        port,
                        "tied to 0",
                        "an optional signal of %s that the buses here do not have"
                                .formatted(bus.protocol().title()));
                left.remove(port);
            }
        }
        ArrayNode streamed = definition.putArray("streams");
        for (StreamSignals stream : streams) {
            stream(streamed, stream, names);
            left.removeAll(stream.signals().values());
        }
        ArrayNode interrupts = definition.putArray("interrupts");
        ArrayNode outward = definition.putArray("outward");
        for (BusSignals.Almost almost : BusSignals.almost(left)) {
            for (HdlPort port : almost.ports()) {
                fitted.tie(port);
                say(port, "", almost.why());
                left.remove(port);
            }
        }
        for (HdlPort port : left) {
            rest(interrupts, outward, port, names);
        }
        ObjectNode resources = definition.putObject("resources");
        resources.put("lookupTables", 100);
        resources.put("flipFlops", 100);
        resources.put("multipliers", 0);
        String name = fitted.name();
        SortedMap<String, String> all = new TreeMap<>(files);
        all.put(name + ".v", fitted.text());
        ObjectNode hardware = definition.putObject("hardware");
        hardware.put("module", name);
        ArrayNode listed = hardware.putArray("files");
        all.keySet().forEach(listed::add);
        ObjectNode values = hardware.putObject("parameters");
        parameters.forEach((inside, outside) -> values.put(inside, outside));
        fitted.addressBits().forEach((parameter, bits) -> values.put(parameter, parameter));
        definition.putObject("software");
        String text = Documents.write(definition);
        List<Reason> ordered =
                module.ports().stream().map(port -> reasons.get(port.name())).toList();
        return new Proposed(
                new OwnBlock(
                        polymetron.library.BlockTypeDocument.read("definition", text),
                        text,
                        all,
                        new TreeMap<>()),
                ordered);
    }

    private void head(String vendor) {
        String plain = plain(module.name());
        definition.put("format", "polymetron-block-type/2");
        definition.put("identity", "%s:blocks:%s:1.0".formatted(vendor, plain.replace('_', '-')));
        definition.put("kind", "peripheral");
        definition.put(
                "title",
                plain.substring(0, 1).toUpperCase(Locale.ROOT)
                        + plain.substring(1).replace('_', ' '));
        definition.put("summary", "Module %s".formatted(module.name()));
        definition.put("description", "From %s.".formatted(module.file()));
        definition.put("defaultName", plain);
    }

    /** A name as a definition has it. */
    private static String plain(String name) {
        String text =
                name.toLowerCase(Locale.ROOT)
                        .replaceAll("[^a-z0-9]+", "_")
                        .replaceAll("^_+|_+$", "");
        String begun = text.matches("[a-z].*") ? text : "p" + text;
        return begun.length() > 32 ? begun.substring(0, 32).replaceAll("_+$", "") : begun;
    }

    private static String fresh(Set<String> names, String wanted) {
        String name = wanted;
        for (int number = 2; !names.add(name); number++) {
            name = wanted + number;
        }
        return name;
    }

    private void say(HdlPort port, String became, String why) {
        reasons.put(port.name(), new Reason(port.name(), became, why));
    }

    private boolean isOneBit(HdlPort port) {
        return port.width().equals("1");
    }

    private void clocksAndResets(List<HdlPort> left) {
        ArrayNode clocks = definition.putArray("clocks");
        ArrayNode resets = definition.putArray("resets");
        for (HdlPort port : List.copyOf(left)) {
            String name = port.name().toLowerCase(Locale.ROOT);
            if (port.way() == Module.Way.INPUT && isOneBit(port) && CLOCK.matcher(name).matches()) {
                String its = clockNames.names().isEmpty() ? "clk" : plain(name);
                clockNames.add(port.name(), its);
                clocks.addObject().put("name", its);
                fitted.connect(port, its, false);
                say(port, "clock " + its, "a one-bit input named like a clock");
                left.remove(port);
            }
        }
        Set<String> taken = new HashSet<>(clockNames.names());
        for (HdlPort port : List.copyOf(left)) {
            String name = port.name().toLowerCase(Locale.ROOT);
            boolean isReset =
                    port.way() == Module.Way.INPUT
                            && isOneBit(port)
                            && RESET.matcher(name).matches();
            if (isReset && !clockNames.names().isEmpty()) {
                boolean isLow = LOW.matcher(name).matches();
                String its = fresh(taken, resets.isEmpty() ? "rst" : plain(name));
                ObjectNode reset = resets.addObject();
                reset.put("name", its);
                reset.put("clock", clockNames.of(name));
                fitted.connect(port, its, isLow);
                say(
                        port,
                        "reset " + its,
                        (isLow
                                        ? "a one-bit input named like an active-low reset; it is"
                                                + " inverted"
                                        : "a one-bit input named like a reset")
                                + clockNames.said(name));
                left.remove(port);
            }
        }
        if (!clockNames.names().isEmpty() && resets.isEmpty()) {
            // A bus needs one, and what follows a clock has one.
            ObjectNode reset = resets.addObject();
            reset.put("name", "rst");
            reset.put("clock", clockNames.names().getFirst());
            fitted.add("input", "rst", "");
        }
    }

    /** Whole numbers can be chosen, but for those that the widths of a bus follow from. */
    private void parameters(List<BusSignals> buses) {
        Set<String> ofBuses = new TreeSet<>();
        for (BusSignals bus : buses) {
            bus.signals().values().forEach(port -> names(port.width(), ofBuses));
        }
        ArrayNode chosen = definition.putArray("parameters");
        Set<String> taken = new HashSet<>();
        for (HdlParameter each : module.parameters()) {
            Value value = each.isLocal() ? null : module.initial(each).orElse(null);
            boolean isWhole = value instanceof Value.Bits && value.asNumber().bitLength() < 32;
            if (!isWhole || ofBuses.contains(each.name())) {
                continue;
            }
            String name = fresh(taken, plain(each.name()).toUpperCase(Locale.ROOT));
            ObjectNode parameter = chosen.addObject();
            parameter.put("name", name);
            parameter.put("title", plain(each.name()).replace('_', ' '));
            parameter.put("form", "integer");
            parameter.put("initial", value.asNumber().toString());
            limit(parameter, "minimum", each.least());
            limit(parameter, "maximum", each.most());
            parameter.put(
                    "explains",
                    each.comment().isEmpty() ? "Parameter " + each.name() : each.comment());
            parameter.put("macro", name);
            parameters.put(each.name(), name);
            fitted.parameter(each.name(), value.asNumber().toString());
        }
    }

    /** Where its type has one that is a number. */
    private static void limit(ObjectNode parameter, String which, String expression) {
        if (expression != null && expression.matches("-?\\d{1,9}")) {
            parameter.put(which, expression);
        }
    }

    private static void names(String width, Set<String> into) {
        try {
            into.addAll(Expression.parse(width.replace("::", ".")).names());
        } catch (ExpressionException unreadable) {
            // What has no value is said where the width is needed.
            return;
        }
    }

    /** A width as the definition can have it: with the block's parameters, or the number that it is at the defaults. */
    private String width(HdlPort port) {
        Set<String> names = new TreeSet<>();
        names(port.width(), names);
        if (!names.isEmpty() && parameters.keySet().containsAll(names)) {
            String text = port.width();
            for (String name : names) {
                text = text.replaceAll("\\b" + Pattern.quote(name) + "\\b", parameters.get(name));
            }
            return text;
        }
        return Integer.toString(module.bits(port, Map.of()));
    }

    private void width(ObjectNode into, String key, HdlPort port) {
        String width = width(port);
        if (width.matches("\\d+")) {
            into.put(key, Long.parseLong(width));
        } else {
            into.put(key, width);
        }
    }

    private void bus(ArrayNode interfaces, BusSignals bus, Set<String> names) {
        Protocol protocol = bus.protocol();
        String wanted = plain(bus.prefix().replaceAll("_$", ""));
        boolean isRegisters = bus.isTarget() && !names.contains("registers");
        String name =
                fresh(names, isRegisters ? "registers" : bus.prefix().isEmpty() ? "port" : wanted);
        int data = bits(bus, "wdata", "pwdata", "hwdata", "dat_w");
        int address = bits(bus, "awaddr", "paddr", "haddr", "adr");
        int seen = Math.max(SMALLEST, address <= LARGEST ? address : SMALLEST);
        ObjectNode form = interfaces.addObject();
        form.put("name", name);
        form.put("role", bus.isTarget() ? "target" : "initiator");
        form.putArray("protocols").add(protocol.toString());
        form.put("dataWidth", data);
        if (bus.isTarget()) {
            form.put("size", 1L << seen);
            form.put("usage", "registers");
        } else {
            form.put("addressWidth", address);
        }
        form.put("executable", false);
        clock(form, bus.prefix());
        for (String signal : ProtocolSignals.names(protocol)) {
            boolean goesIn = ProtocolSignals.isOfInitiator(protocol, signal) == bus.isTarget();
            fitted.bus(
                    name,
                    protocol,
                    signal,
                    goesIn,
                    bus.isTarget() ? seen : address,
                    data,
                    bus.signals().get(signal));
        }
        String what =
                "%s of %s %s"
                        .formatted(bus.isTarget() ? "target" : "initiator", protocol.title(), name);
        bus.signals()
                .forEach(
                        (signal, port) ->
                                say(
                                        port,
                                        what,
                                        "named like %s, with its direction%s"
                                                .formatted(signal, clockNames.said(bus.prefix()))));
    }

    private void clock(ObjectNode form, String prefix) {
        if (clockNames.areSeveral()) {
            form.put("clock", clockNames.of(prefix));
        }
    }

    private int bits(BusSignals bus, String... signals) {
        for (String signal : signals) {
            HdlPort port = bus.signals().get(signal);
            if (port != null) {
                return module.bits(port, Map.of());
            }
        }
        return 32;
    }

    private void stream(ArrayNode streamed, StreamSignals stream, Set<String> names) {
        String name =
                fresh(
                        names,
                        stream.prefix().isEmpty()
                                ? (stream.isSource() ? "out" : "in")
                                : plain(stream.prefix().replaceAll("_$", "")));
        ObjectNode form = streamed.addObject();
        form.put("name", name);
        form.put("end", stream.isSource() ? "source" : "sink");
        HdlPort data = stream.signals().get("tdata");
        width(form, "dataWidth", data);
        if (stream.signals().containsKey("tlast")) {
            form.put("packets", 1);
        }
        if (stream.signals().containsKey("tkeep")) {
            form.put("byteLanes", 1);
        }
        clock(form, stream.prefix());
        stream.signals()
                .forEach(
                        (signal, port) -> {
                            fitted.connect(port, name + "_" + signal, false);
                            say(
                                    port,
                                    "%s of stream %s"
                                            .formatted(stream.isSource() ? "source" : "sink", name),
                                    "named like %s, with its direction%s"
                                            .formatted(signal, clockNames.said(stream.prefix())));
                        });
        if (!stream.signals().containsKey("tready")) {
            fitted.alwaysReady(name, stream.isSource());
        }
    }

    private void rest(ArrayNode interrupts, ArrayNode outward, HdlPort port, Set<String> names) {
        String name = port.name().toLowerCase(Locale.ROOT);
        if (port.way() == Module.Way.INOUT) {
            fitted.leave(port);
            say(
                    port,
                    "",
                    "there are no bidirectional ports inside the chip: replace it by an input, an"
                            + " output and an output enable");
            return;
        }
        String its = fresh(names, plain(port.name()));
        if (port.way() == Module.Way.OUTPUT
                && isOneBit(port)
                && INTERRUPT.matcher(name).matches()) {
            ObjectNode interrupt = interrupts.addObject();
            interrupt.put("name", its);
            interrupt.put("end", "source");
            interrupt.put("line", "device");
            interrupt.put("trigger", "high");
            fitted.connect(port, its, false);
            say(port, "interrupt " + its, "a one-bit output named like an interrupt");
            return;
        }
        ObjectNode form = outward.addObject();
        form.put("name", its);
        form.put("title", plain(port.name()).replace('_', ' '));
        boolean comesIn = port.way() == Module.Way.INPUT;
        ArrayNode kinds = form.putArray("partKinds");
        for (NamedPart part : NAMED_PARTS) {
            if (part.way() == port.way() && part.name().matcher(its).find()) {
                kinds.add(part.kind());
            }
        }
        kinds.add("header");
        ObjectNode line = form.putArray("ports").addObject();
        line.put("name", its);
        line.put("direction", comesIn ? "\"in\"" : "\"out\"");
        width(line, "width", port);
        fitted.connect(port, its, false);
        say(
                port,
                "lines " + its,
                "no role is known for the name, so it goes to pins; tie it in %s if it must not"
                        .formatted(fitted.name() + ".v"));
    }
}
