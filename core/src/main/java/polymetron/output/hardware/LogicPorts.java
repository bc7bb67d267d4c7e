package polymetron.output.hardware;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import polymetron.elaborate.BlockShape;
import polymetron.elaborate.Field;
import polymetron.elaborate.Register;
import polymetron.elaborate.SizedInterface;
import polymetron.elaborate.SizedInterrupt;
import polymetron.elaborate.SizedOutward;
import polymetron.elaborate.SizedPort;
import polymetron.elaborate.SizedStream;
import polymetron.expression.Expression;
import polymetron.expression.Value;
import polymetron.library.BlockType;
import polymetron.library.FieldType;
import polymetron.library.OutwardInterface;
import polymetron.library.RegisterType;
import polymetron.verilog.Module;

/**
 * The ports that the module of a block can have, as they follow from its definition: what {@link BlockModule} connects, and
 * nothing else. All but those of lines that leave the chip, of interrupts that no field raises and of streams can be left out.
 */
public final class LogicPorts {
    private static final int ADDRESS_BITS = 12;

    private static final Pattern TOLD = Pattern.compile("(.+?)(_[a-z]+)");

    /** What is told once for each register, and not for each of its bits. */
    private static final Set<String> PER_REGISTER =
            Set.of("_load", "_count", "_stored", "_written", "_taken");

    /** Ports of a bank that are the bus's. */
    private static final Set<String> OF_BUS =
            Set.of(
                    "clk",
                    "rst",
                    "read",
                    "read_address",
                    "read_data",
                    "read_error",
                    "write",
                    "write_address",
                    "write_data",
                    "write_bytes",
                    "write_error");

    /**
     * A port, seen from the module.
     *
     * @param bits width with the given parameters
     * @param width the same as an expression of the block's parameters
     * @param isNeeded whether something outside waits for it
     */
    public record LogicPort(
            String name,
            Module.Way way,
            int bits,
            String width,
            boolean isNeeded,
            String explains) {}

    private final BlockShape shape;
    private final BlockType type;
    private final List<LogicPort> ports = new ArrayList<>();

    private LogicPorts(BlockType type, Map<String, String> parameters) {
        this.type = type;
        this.shape = new BlockShape(type, parameters);
    }

    /**
     * @param parameters of the block; those that are missing have their defaults
     */
    public static List<LogicPort> of(BlockType type, Map<String, String> parameters) {
        LogicPorts found = new LogicPorts(type, parameters);
        found.find();
        return List.copyOf(found.ports);
    }

    private void add(
            String name, boolean in, int bits, String width, boolean isNeeded, String explains) {
        Module.Way way = in ? Module.Way.INPUT : Module.Way.OUTPUT;
        ports.add(new LogicPort(BlockModule.port(name), way, bits, width, isNeeded, explains));
    }

    private void find() {
        type.clocks().forEach(each -> add(each.name(), true, 1, "1", false, "clock"));
        type.resets().forEach(each -> add(each.name(), true, 1, "1", false, "reset, active high"));
        shape.clockOutputs().forEach(each -> add(each.name(), false, 1, "1", true, "clock"));
        type.resetOutputs().forEach(each -> add(each.name(), false, 1, "1", true, "reset"));
        for (SizedInterface form : shape.busInterfaces()) {
            List<Register> registers = shape.registersOf(form.name());
            if (form.isTarget() && !registers.isEmpty()) {
                bank(form, registers);
            } else if (form.isForBus()) {
                access(form);
            }
        }
        shape.interrupts().forEach(this::interrupt);
        shape.streams().forEach(this::stream);
        for (SizedOutward form : shape.outward()) {
            form.ports().forEach(port -> outward(form, port));
        }
    }

    private void bank(SizedInterface form, List<Register> registers) {
        Module bank = RegisterBankModule.of("bank", registers, 1, ADDRESS_BITS, port -> true);
        Map<String, Source> sources = new HashMap<>();
        for (Register register : registers) {
            for (Field field : register.fields()) {
                sources.putIfAbsent(
                        register.name() + "_" + field.name(), new Source(register, field));
            }
        }
        for (Module.Port port : bank.ports()) {
            String name = port.net().name();
            if (!OF_BUS.contains(name) && !name.startsWith("interrupt_")) {
                ofField(sources, port, name);
            }
        }
    }

    /** What ports of a bank belong to. */
    private record Source(Register register, Field field) {}

    /** A port is named as its field, or as that and what it tells in lower case. */
    private void ofField(Map<String, Source> sources, Module.Port port, String name) {
        Matcher told = TOLD.matcher(name);
        Source source = sources.get(name);
        String rest = "";
        if (source == null && told.matches()) {
            source = sources.get(told.group(1));
            rest = told.group(2);
        }
        if (source != null) {
            add(
                    name,
                    port.way() == Module.Way.OUTPUT,
                    port.net().bits(),
                    width(
                            source.register().type(),
                            PER_REGISTER.contains(rest) ? null : source.field().type()),
                    false,
                    explains(rest, source.field().type()));
        }
    }

    private static String width(RegisterType register, FieldType field) {
        Expression each = field == null ? null : field.width();
        String one = each == null ? "1" : each.toString();
        if (register.count() == null) {
            return one;
        }
        String count = bracketed(register.count().toString());
        return one.equals("1") ? register.count().toString() : count + " * " + bracketed(one);
    }

    private static String bracketed(String text) {
        return text.matches("\\w+") ? text : "(" + text + ")";
    }

    private static String explains(String rest, FieldType field) {
        return switch (rest) {
            case "_set" -> "bits that become 1";
            case "_load" -> "takes the new value";
            case "_new" -> "the new value";
            case "_count" -> "counts up by one";
            case "_pulse" -> "ones that software writes, for one cycle";
            case "_written" -> "software hands over a value";
            case "_data" -> "the value that software hands over";
            case "_stored" -> "software stores a value, which is there in the next cycle";
            case "_taken" -> "software has read the value";
            default -> field.explains() == null ? "" : field.explains();
        };
    }

    private void access(SizedInterface form) {
        for (Signal signal : Signals.ACCESS) {
            boolean in = signal.fromInitiator() == form.isTarget();
            String name = form.name() + "_" + signal.name();
            int addressBits = form.isTarget() ? ADDRESS_BITS : form.addressBits();
            int bits = signal.bits(addressBits, form.dataWidth());
            boolean isAddress = signal.width() == Signal.Width.ADDRESS;
            add(
                    name,
                    in,
                    bits,
                    isAddress ? "" : Integer.toString(bits),
                    false,
                    "%s: %s".formatted(form.name(), meaning(signal.name())));
        }
    }

    /** Signals of an access ({@link Signals#ACCESS}). */
    private static String meaning(String signal) {
        return switch (signal) {
            case "request" -> "an access is requested, until the cycle in which it is done";
            case "write" -> "the access is a write";
            case "address" -> "address of the access";
            case "value" -> "what is written";
            case "bytes" -> "which bytes of it count";
            case "done" -> "the access is done in this cycle";
            case "answer" -> "what was read, when it is done";
            default -> "the access has failed, when it is done";
        };
    }

    private void interrupt(SizedInterrupt port) {
        if (!port.isSource()) {
            add(
                    port.name(),
                    true,
                    port.count(),
                    Integer.toString(port.count()),
                    false,
                    "interrupts");
            return;
        }
        boolean isOfField =
                shape.registers().stream()
                        .flatMap(register -> register.fields().stream())
                        .anyMatch(
                                field ->
                                        field.type().interrupt() != null
                                                && field.type()
                                                        .interrupt()
                                                        .source()
                                                        .equals(port.name()));
        if (!isOfField) {
            add(port.name(), false, 1, "1", true, "interrupt");
        }
    }

    private void stream(SizedStream form) {
        for (String signal : StreamNets.SIGNALS) {
            boolean in = StreamNets.isOfSource(signal) != form.isSource();
            int bits = StreamNets.bits(form, signal);
            boolean isMark = signal.equals(StreamNets.LAST) || signal.equals(StreamNets.KEEP);
            String words =
                    form.type().dataWidth() == null
                            ? Integer.toString(form.dataWidth())
                            : form.type().dataWidth().toString();
            String width =
                    switch (signal) {
                        case StreamNets.DATA -> words;
                        case StreamNets.KEEP -> bracketed(words) + " / 8";
                        default -> "1";
                    };
            add(
                    form.name() + "_" + signal,
                    in,
                    bits,
                    width,
                    !in && !isMark,
                    "stream " + form.name());
        }
    }

    private void outward(SizedOutward form, SizedPort port) {
        OutwardInterface.Port described =
                form.type().ports().stream()
                        .filter(each -> each.name().equals(port.name()))
                        .findFirst()
                        .orElseThrow();
        String width = described.width() == null ? "1" : described.width().toString();
        String explains = "of " + form.name();
        switch (port.direction()) {
            case IN -> add(port.name(), true, port.width(), width, false, explains);
            case OUT -> add(port.name(), false, port.width(), width, true, explains);
            case BOTH -> {
                add(port.name() + "_in", true, port.width(), width, false, explains);
                add(port.name() + "_out", false, port.width(), width, true, explains);
                add(
                        port.name() + "_drive",
                        false,
                        port.width(),
                        width,
                        true,
                        explains + ": driven");
            }
        }
    }

    /** Names that a port may have as well, where a line goes one way only. */
    public static Set<String> alsoCalled(LogicPort port) {
        return Set.of(port.name() + (port.way() == Module.Way.INPUT ? "_in" : "_out"));
    }

    /** Values of a block's parameters. */
    public static Map<String, Value> parameters(BlockType type, Map<String, String> chosen) {
        return new BlockShape(type, chosen).parameters();
    }

    /** Whether a port is a signal of one of the block's bus interfaces, which a module may have instead of a register bank. */
    public static boolean isOfBus(BlockType type, String port) {
        return type.busInterfaces().stream()
                .filter(form -> port.startsWith(form.name() + "_"))
                .flatMap(form -> form.protocols().stream())
                .flatMap(protocol -> Signals.of(protocol).stream())
                .anyMatch(signal -> port.endsWith("_" + signal.name()));
    }
}
