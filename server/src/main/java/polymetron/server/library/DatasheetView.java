package polymetron.server.library;

import jakarta.annotation.Nullable;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import polymetron.address.Address;
import polymetron.bus.Protocol;
import polymetron.elaborate.BlockShape;
import polymetron.elaborate.Field;
import polymetron.elaborate.Register;
import polymetron.elaborate.SizedInterface;
import polymetron.elaborate.SizedInterrupt;
import polymetron.elaborate.SizedMemory;
import polymetron.elaborate.SizedOutward;
import polymetron.elaborate.SizedStream;
import polymetron.expression.Expression;
import polymetron.library.BlockType;
import polymetron.library.ClockOutput;
import polymetron.library.FieldType;
import polymetron.library.Library;
import polymetron.library.MemoryType;
import polymetron.library.ParameterType;
import polymetron.library.RegisterType;
import polymetron.library.Resources;
import polymetron.quantity.Frequency;

/**
 * Everything about a block type, with its parameters at their defaults.
 *
 * @param standard published programming model that the registers follow
 * @param driver text of the C driver header
 * @param evidence how well the hardware is tested; null for a block without any
 */
public record DatasheetView(
        String identity,
        String kind,
        String title,
        String summary,
        String description,
        List<String> versions,
        @Nullable String needs,
        List<ParameterRow> parameters,
        List<PortRow> ports,
        List<RegisterRow> registers,
        List<FormulaRow> resources,
        List<String> compatible,
        @Nullable String standard,
        @Nullable String driverName,
        @Nullable String driver,
        @Nullable EvidenceView evidence) {

    /** A parameter and what is allowed. */
    public record ParameterRow(
            String name, String title, String initial, String range, String explains) {}

    /** A clock, reset, bus interface, interrupt or outward port, in words. */
    public record PortRow(String sort, String name, String what) {}

    /** A register. */
    public record RegisterRow(
            String offset,
            String name,
            String access,
            String reset,
            String explains,
            @Nullable String when,
            List<FieldRow> fields) {}

    /** A field of a register. */
    public record FieldRow(String bits, String name, String explains) {}

    /** What a block takes of the device: the formula, and its value at the defaults. */
    public record FormulaRow(String name, String formula, long atDefaults) {}

    static DatasheetView of(BlockType type, Library library) {
        Map<String, String> drivers = library.driverFiles(type.identity());
        BlockShape shape = new BlockShape(type, Map.of());
        return new DatasheetView(
                type.identity().toString(),
                type.kind().toString(),
                type.title(),
                type.summary(),
                type.description(),
                library.versionsOf(type.identity()).stream()
                        .map(version -> version.identity().toString())
                        .toList(),
                type.needs(),
                type.parameters().stream().map(DatasheetView::parameter).toList(),
                ports(type, shape),
                registers(type, shape),
                resources(type.resources(), shape),
                type.software().compatible(),
                type.software().standard(),
                type.software().driver(),
                type.software().driver() == null ? null : drivers.get(type.software().driver()),
                EvidenceView.of(type, library));
    }

    private static ParameterRow parameter(ParameterType parameter) {
        List<String> range = new ArrayList<>();
        if (!parameter.choices().isEmpty()) {
            range.add(
                    String.join(
                            ", ", parameter.choices().stream().map(each -> each.value()).toList()));
        } else if (parameter.form() == ParameterType.Form.BOOLEAN) {
            range.add("0 or 1");
        } else {
            String allowed = LibraryView.range(parameter);
            if (!allowed.isEmpty()) {
                range.add(allowed);
            }
        }
        if (parameter.unit() != null) {
            range.add(parameter.unit());
        }
        return new ParameterRow(
                parameter.name(),
                parameter.title(),
                parameter.initial(),
                String.join(" ", range),
                parameter.explains());
    }

    private static String text(Object expression, String otherwise) {
        return expression == null ? otherwise : expression.toString();
    }

    private static List<PortRow> ports(BlockType type, BlockShape shape) {
        List<PortRow> rows = new ArrayList<>();
        type.clocks()
                .forEach(
                        clock ->
                                rows.add(
                                        new PortRow(
                                                "clock",
                                                clock.name(),
                                                clock.minimumHz() == null
                                                                || clock.maximumHz() == null
                                                        ? "any frequency"
                                                        : "%s to %s"
                                                                .formatted(
                                                                        Frequency.format(
                                                                                clock.minimumHz()),
                                                                        Frequency.format(
                                                                                clock
                                                                                        .maximumHz())))));
        type.resets()
                .forEach(
                        reset ->
                                rows.add(
                                        new PortRow(
                                                "reset",
                                                reset.name(),
                                                "synchronous to " + reset.clock())));
        for (ClockOutput output : shape.clockOutputs()) {
            rows.add(
                    new PortRow(
                            "clock made",
                            output.name(),
                            output.from() == null
                                    ? "%s Hz".formatted(output.multiply())
                                    : "%s × %s / (%s)"
                                            .formatted(
                                                    output.from(),
                                                    output.multiply(),
                                                    text(output.divide(), "1"))));
        }
        type.resetOutputs()
                .forEach(
                        output ->
                                rows.add(
                                        new PortRow(
                                                "reset made",
                                                output.name(),
                                                output.clock() == null
                                                        ? "of no clock"
                                                        : "released with " + output.clock())));
        for (SizedStream form : shape.streams()) {
            String words = form.traits().words();
            rows.add(
                    new PortRow(
                            "stream " + form.type().end(),
                            form.name(),
                            "%s bit%s%s"
                                    .formatted(
                                            form.dataWidth(),
                                            words.isEmpty() ? "" : ", " + words,
                                            form.type().passes() == null
                                                    ? ""
                                                    : ", hands on what comes by "
                                                            + form.type().passes())));
        }
        for (SizedInterface form : shape.busInterfaces()) {
            rows.add(new PortRow(form.type().role().toString(), form.name(), words(form)));
        }
        for (SizedInterrupt port : shape.interrupts()) {
            rows.add(
                    new PortRow(
                            port.isSource() ? "interrupt" : "interrupt inputs",
                            port.name(),
                            port.isSource()
                                    ? "%s line, %s"
                                            .formatted(port.type().line(), port.type().trigger())
                                    : "%s of the %s line"
                                            .formatted(port.count(), port.type().line())));
        }
        for (SizedOutward form : shape.outward()) {
            form.ports()
                    .forEach(
                            port ->
                                    rows.add(
                                            new PortRow(
                                                    "external port",
                                                    form.name() + "." + port.name(),
                                                    "%s, %s"
                                                            .formatted(
                                                                    port.direction().words(),
                                                                    port.width() == 1
                                                                            ? "1 line"
                                                                            : port.width()
                                                                                    + " lines"))));
        }
        return rows;
    }

    private static String words(SizedInterface form) {
        String protocols =
                String.join(", ", form.type().protocols().stream().map(Protocol::title).toList());
        String size =
                form.isTarget() ? ", " + Address.formatSize(form.sizeBytes()) + " at defaults" : "";
        return "%s, %s bit%s".formatted(protocols, form.dataWidth(), size);
    }

    /** All registers; the ones that are not there at the defaults too, with what they depend on. */
    private static List<RegisterRow> registers(BlockType type, BlockShape shape) {
        List<RegisterRow> rows = new ArrayList<>();
        for (var register : type.registers()) {
            Register sized =
                    shape.registers().stream()
                            .filter(each -> each.type() == register)
                            .findFirst()
                            .orElse(null);
            String name =
                    register.count() == null
                            ? register.name()
                            : register.name() + "[" + register.count() + "]";
            rows.add(
                    new RegisterRow(
                            "+0x%02X".formatted(shape.number(register.offset(), 0)),
                            name,
                            register.access().letters(),
                            sized == null
                                    ? resetText(register)
                                    : sized.resetFollowsClock() ? "from clock" : sized.resetText(0),
                            register.meaning(),
                            when(
                                    register.selectedBy() == null
                                            ? null
                                            : register.selectedBy().toString(),
                                    register.when()),
                            sized == null
                                    ? register.fields().stream().map(DatasheetView::field).toList()
                                    : sized.fields().stream().map(DatasheetView::field).toList()));
        }
        return rows;
    }

    /** The reset value of a register that is not there with the parameters' first values: that of its only field. */
    private static String resetText(RegisterType register) {
        return register.fields().size() == 1
                ? text(register.fields().getFirst().reset(), "0")
                : "see fields";
    }

    private static String when(String condition, Expression present) {
        if (condition != null) {
            return condition;
        }
        return present == null ? null : present.toString();
    }

    /** A field of a register that is not there with the default parameters: as the definition says it. */
    private static FieldRow field(FieldType field) {
        String low = field.lowBit().toString();
        return new FieldRow(
                field.width() == null ? low : "%s bits from %s".formatted(field.width(), low),
                field.name(),
                field.explains());
    }

    private static FieldRow field(Field field) {
        return new FieldRow(field.bitRange(), field.name(), field.explains());
    }

    private static List<FormulaRow> resources(Resources resources, BlockShape shape) {
        List<FormulaRow> rows = new ArrayList<>();
        rows.add(formula("lookup tables", resources.lookupTables(), shape));
        rows.add(formula("flip-flops", resources.flipFlops(), shape));
        rows.add(formula("multipliers", resources.multipliers(), shape));
        for (MemoryType memory : shape.type().memories()) {
            String words = "%s words of %s bit".formatted(memory.depth(), memory.width());
            long bits =
                    shape.memories().stream()
                            .filter(each -> each.name().equals(memory.name()))
                            .mapToLong(SizedMemory::bits)
                            .sum();
            rows.add(new FormulaRow("bits of memory " + memory.name(), words, bits));
        }
        return rows;
    }

    private static FormulaRow formula(String name, Expression formula, BlockShape shape) {
        return new FormulaRow(name, text(formula, "0"), shape.number(formula, 0));
    }
}
