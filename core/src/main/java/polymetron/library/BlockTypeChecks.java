package polymetron.library;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.TreeSet;
import java.util.function.Function;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import polymetron.expression.Expression;
import polymetron.json.DocumentException;
import polymetron.json.DocumentText;

/**
 * What a schema cannot say of a definition: every name that something refers to is there, every expression has a value, and
 * registers and fields have places of their own.
 */
final class BlockTypeChecks {
    /** Name of the clock of the block in hertz, in values after reset. */
    private static final String CLOCK = "CLOCK";

    /** Name of the rate of the stream that feeds the block, in rates. */
    private static final String INPUT = "INPUT";

    private static final Set<String> RESERVED = Set.of(CLOCK, INPUT, FieldType.INDEX);

    private final DocumentText text;
    private final BlockType type;
    private final Set<String> parameters;
    private final Set<String> fields = new TreeSet<>();

    private BlockTypeChecks(DocumentText text, BlockType type) {
        this.text = text;
        this.type = type;
        this.parameters =
                type.parameters().stream()
                        .map(ParameterType::name)
                        .collect(Collectors.toCollection(TreeSet::new));
        for (RegisterType register : type.registers()) {
            for (FieldType field : register.fields()) {
                fields.add(register.name() + "." + field.name());
            }
        }
    }

    /**
     * @throws DocumentException when something is wrong; the message names line and key, and says what would be right
     */
    static BlockType checked(String name, String text, BlockType type) {
        DocumentText definition = new DocumentText(name, text);
        BlockTypeChecks checks = new BlockTypeChecks(definition, type);
        checks.parameters();
        checks.registers();
        checks.rates();
        checks.capabilities();
        DefinitionExpressions expressions = new DefinitionExpressions(type, definition);
        for (ParameterSettings.Setting setting : ParameterSettings.of(type, definition)) {
            expressions.check(setting);
            RegisterPlaces.check(type, definition, setting);
        }
        return type;
    }

    private void parameters() {
        for (int at = 0; at < type.parameters().size(); at++) {
            String parameter = type.parameters().get(at).name();
            if (RESERVED.contains(parameter)) {
                throw text.wrong(
                        "/parameters/" + at + "/name",
                        "%s is what expressions call %s; the parameter needs another name"
                                .formatted(parameter, "a value of their own"));
            }
        }
    }

    private void registers() {
        Set<String> interrupts = sources();
        for (int at = 0; at < type.registers().size(); at++) {
            RegisterType register = type.registers().get(at);
            String place = "/registers/" + at;
            ofFields(place + "/selectedBy", register.selectedBy());
            if (register.isWhole() && !Integer.valueOf(Long.SIZE).equals(register.width())) {
                throw text.wrong(
                        place + "/whole",
                        "an access has 32 bits, so only a register of 64 is read and written whole;"
                                + " leave it out, or set width to 64");
            }
            if (register.target() != null) {
                refers(place + "/target", register.target(), targets(), "bus interface");
            }
            for (Expression each : list(register.offset(), register.count(), register.when())) {
                ofParameters(place, each);
            }
            for (int index = 0; index < register.fields().size(); index++) {
                field(place + "/fields/" + index, register.fields().get(index), interrupts);
            }
        }
    }

    private void field(String place, FieldType field, Set<String> interrupts) {
        ofFields(place + "/lockedBy", field.lockedBy());
        for (Expression each : list(field.lowBit(), field.width(), field.when())) {
            ofParameters(place, each);
        }
        ofParameters(place + "/reset", field.reset(), CLOCK, FieldType.INDEX);
        ofParameters(place + "/implemented", field.implemented(), FieldType.INDEX);
        if (field.interrupt() != null) {
            refers(
                    place + "/interrupt/source",
                    field.interrupt().source(),
                    interrupts,
                    "interrupt source");
            refersToField(place + "/interrupt/enable", field.interrupt().enable());
        }
        if (!field.software().writes() && field.onWrite() != OnWrite.STORE) {
            throw text.wrong(place + "/onWrite", "software cannot write the field; leave it out");
        }
        if (field.software().writes()
                && field.hardware() == HardwareAccess.VALUE
                && field.onWrite() != OnWrite.HAND_OVER) {
            throw text.wrong(
                    place + "/hardware",
                    "what the block gives is not stored; with hardware load it is, and with onWrite"
                            + " hand-over the block gets what is written");
        }
        if (!field.software().reads() && field.onRead() != OnRead.NONE) {
            throw text.wrong(place + "/onRead", "software cannot read the field; leave it out");
        }
    }

    private void rates() {
        for (int at = 0; at < type.rates().size(); at++) {
            RateType rate = type.rates().get(at);
            ofParameters("/rates/" + at + "/wanted", rate.wanted(), CLOCK, INPUT);
            ofParameters("/rates/" + at + "/obtained", rate.obtained(), CLOCK, INPUT);
        }
    }

    private void capabilities() {
        for (int at = 0; at < type.provides().size(); at++) {
            String place = "/provides/" + at;
            switch (type.provides().get(at)) {
                case Capability.Hart hart -> hart(place + "/hart", hart);
                case Capability.MachineTimer timer -> {
                    String role = place + "/machine-timer";
                    refers(role + "/registers", timer.registers(), targets(), "bus interface");
                    for (Capability.TimerLines lines : timer.lines()) {
                        refers(role + "/lines", lines.timer(), sources(), "interrupt source");
                        refers(role + "/lines", lines.software(), sources(), "interrupt source");
                    }
                    ofParameters(role, timer.harts());
                }
                case Capability.Controller controller -> {
                    String role = place + "/interrupt-controller";
                    refers(role + "/registers", controller.registers(), targets(), "bus interface");
                    refers(role + "/inputs", controller.inputs(), sinks(), "interrupt sink");
                    for (String context : controller.contexts()) {
                        refers(role + "/contexts", context, sources(), "interrupt source");
                    }
                    ofParameters(role + "/sources", controller.sources());
                    ofParameters(role + "/priorityBits", controller.priorityBits());
                }
                case Capability.Console console -> {
                    String role = place + "/console";
                    refers(role + "/registers", console.registers(), targets(), "bus interface");
                    ofParameters(role + "/baud", console.baud());
                    if (console.irq() != null) {
                        refers(role + "/irq", console.irq(), sources(), "interrupt source");
                    }
                }
                case Capability.Lines lines -> lines(place + "/lines", lines);
                case Capability.Pll pll -> {
                    String role = place + "/pll";
                    refers(role + "/divide", pll.divide(), parameters, "parameter");
                    refers(role + "/multiply", pll.multiply(), parameters, "parameter");
                    refers(role + "/steps", pll.steps(), parameters, "parameter");
                    refers(role + "/outputs", pll.outputs(), parameters, "parameter");
                    for (String divider : pll.dividers()) {
                        refers(role + "/dividers", divider, parameters, "parameter");
                    }
                }
                case Capability.TwoWire wires -> {
                    refers(place + "/two-wire/low", wires.low(), parameters, "parameter");
                    refers(place + "/two-wire/high", wires.high(), parameters, "parameter");
                }
                case Capability.AnalogInputs inputs -> {
                    ofParameters(place + "/analog-inputs/channels", inputs.channels());
                    ofParameters(place + "/analog-inputs/fullScale", inputs.fullScale());
                }
                case Capability.OutsideLogic outside ->
                        refers(
                                place + "/outside-logic/port",
                                outside.port(),
                                targets(),
                                "bus interface");
                case Capability.Buffer buffer -> {
                    refers(
                            place + "/buffer/writer",
                            buffer.writer(),
                            initiators(),
                            "bus interface");
                    ofParameters(place + "/buffer/base", buffer.base());
                    ofParameters(place + "/buffer/bytes", buffer.bytes());
                }
            }
        }
    }

    private void hart(String role, Capability.Hart hart) {
        refers(role + "/fetch", hart.fetch(), initiators(), "bus interface");
        refers(role + "/data", hart.data(), initiators(), "bus interface");
        ofParameters(role + "/id", hart.id());
        ofParameters(role + "/reset", hart.reset());
        ofParameters(role + "/trap", hart.trap());
        if (hart.lines() != null) {
            refers(role + "/lines/external", hart.lines().external(), sinks(), "interrupt sink");
            refers(role + "/lines/timer", hart.lines().timer(), sinks(), "interrupt sink");
            refers(role + "/lines/software", hart.lines().software(), sinks(), "interrupt sink");
            if (hart.lines().local() != null) {
                refers(role + "/lines/local", hart.lines().local(), sinks(), "interrupt sink");
            }
        }
    }

    private void lines(String role, Capability.Lines lines) {
        refers(role + "/registers", lines.registers(), targets(), "bus interface");
        ofParameters(role + "/count", lines.count());
        ofParameters(role + "/direction", lines.direction());
        refersToField(role + "/input", lines.input());
        refersToField(role + "/output", lines.output());
        refersToField(role + "/drive", lines.drive());
        refersToField(role + "/rise", lines.rise());
        refersToField(role + "/fall", lines.fall());
        refersToField(role + "/edge", lines.edge());
    }

    private static List<Expression> list(Expression... each) {
        List<Expression> found = new ArrayList<>();
        for (Expression expression : each) {
            if (expression != null) {
                found.add(expression);
            }
        }
        return found;
    }

    private Set<String> targets() {
        return interfaces(Role.TARGET);
    }

    private Set<String> initiators() {
        return interfaces(Role.INITIATOR);
    }

    private Set<String> interfaces(Role role) {
        return names(
                type.busInterfaces().stream().filter(form -> form.role() == role),
                BusInterfaceType::name);
    }

    private Set<String> sources() {
        return ports(InterruptPort.End.SOURCE);
    }

    private Set<String> sinks() {
        return ports(InterruptPort.End.SINK);
    }

    private Set<String> ports(InterruptPort.End end) {
        return names(
                type.interrupts().stream().filter(port -> port.end() == end), InterruptPort::name);
    }

    private static <T> Set<String> names(Stream<T> all, Function<T, String> name) {
        return all.map(name).collect(Collectors.toCollection(TreeSet::new));
    }

    private void refers(String place, String reference, Set<String> known, String what) {
        if (!known.contains(reference)) {
            throw text.wrong(
                    place,
                    "there is no %s %s; there %s"
                            .formatted(
                                    what,
                                    reference,
                                    known.isEmpty()
                                            ? "is none"
                                            : "is " + String.join(", ", known)));
        }
    }

    private void refersToField(String place, String reference) {
        if (reference != null) {
            refers(place, reference, fields, "field");
        }
    }

    private void ofFields(String place, Expression condition) {
        if (condition != null) {
            for (String each : condition.names()) {
                refers(place, each, fields, "field");
            }
        }
    }

    /** Names parameters only, or what an expression of its sort may name besides. */
    private void ofParameters(String place, Expression expression, String... besides) {
        if (expression == null) {
            return;
        }
        for (String each : expression.names()) {
            if (!List.of(besides).contains(each)) {
                refers(place, each, parameters, "parameter");
            }
        }
    }
}
