package polymetron.output.software;

import polymetron.address.Address;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.Field;
import polymetron.elaborate.Register;
import polymetron.elaborate.TargetRange;
import polymetron.expression.Value;
import polymetron.library.ParameterType;
import polymetron.output.Exporter;
import polymetron.output.HandoffFile;
import polymetron.output.HandoffNames;
import polymetron.software.DeviceInterrupt;
import polymetron.software.SoftwareView;
import polymetron.software.TargetClock;
import polymetron.text.Escape;
import polymetron.text.MarkdownTable;
import polymetron.text.TextWriter;

/** The register reference as Markdown: every register with its absolute address and its fields. */
final class RegisterReference implements Exporter {
    @Override
    public HandoffFile export(SoftwareView view, HandoffNames names) {
        TextWriter out = TextWriter.indentedBy("");
        out.line("# %s: registers", Escape.c(view.platform().platform().name())).blank();
        if (names.hasSeveral()) {
            out.line("As %s sees them.", view.name()).blank();
        }
        out.line("Platform fingerprint `%s`.", names.fingerprint()).blank();
        MarkdownTable map = MarkdownTable.of("block", "type", "base", "last", ">size");
        for (TargetRange target : view.targets()) {
            map.row(
                    target.label(),
                    target.block().type().title(),
                    code(Address.format(target.range().base())),
                    code(Address.format(target.range().last())),
                    Address.formatSize(target.range().sizeBytes()));
        }
        map.write(out);
        for (TargetRange target : view.devices()) {
            block(out, view, target);
        }
        return new HandoffFile(names.of(view, "_registers.md"), "register reference", out.text());
    }

    private static String code(String text) {
        return "`" + text + "`";
    }

    private static void block(TextWriter out, SoftwareView view, TargetRange target) {
        out.blank().line("## %s", target.label()).blank();
        out.line(target.block().type().description());
        long clockHz = TargetClock.hertz(view.platform(), target.block(), target.form().name());
        if (clockHz > 0) {
            out.blank().line("Clock %s Hz.", clockHz);
        }
        for (DeviceInterrupt interrupt : view.interruptsOf(target)) {
            out.blank().line(words(interrupt));
        }
        parameters(out, target.block());
        MarkdownTable table =
                MarkdownTable.of(
                        "register", "address", "offset", ">bits", "access", "reset", "meaning");
        for (Register register : target.registers()) {
            table.row(
                    name(register),
                    code(Address.format(target.range().base() + register.offset())),
                    code("+0x%02X".formatted(register.offset())),
                    register.width(),
                    register.access(),
                    code(register.resetText(clockHz)),
                    meaning(register));
        }
        table.write(out.blank());
        for (Register register : target.registers()) {
            fields(out, register);
        }
    }

    private static String name(Register register) {
        return register.isRow()
                ? "%s[%s…%s]"
                        .formatted(
                                register.name(),
                                register.first(),
                                register.first() + register.count() - 1)
                : register.name();
    }

    private static String meaning(Register register) {
        String meaning = register.type().meaning();
        if (register.condition() != null) {
            meaning += " When " + register.condition() + ".";
        }
        if (register.readEffect() != null) {
            meaning += " Reading " + register.readEffect() + ".";
        }
        return meaning;
    }

    private static String words(DeviceInterrupt interrupt) {
        return switch (interrupt) {
            case DeviceInterrupt.Source source ->
                    "Interrupt `%s`: source %s of %s (RISC-V PLIC)."
                            .formatted(
                                    source.source(),
                                    source.number(),
                                    source.controller().block().name());
            case DeviceInterrupt.Cause cause ->
                    "Interrupt `%s`: cause %s of %s."
                            .formatted(cause.source(), cause.cause(), cause.hart().label());
        };
    }

    private static void parameters(TextWriter out, ElaboratedBlock block) {
        MarkdownTable table = MarkdownTable.of("parameter", "value", "meaning");
        for (ParameterType parameter : block.type().parameters()) {
            if (parameter.macro() != null) {
                Value value = block.shape().parameters().get(parameter.name());
                table.row(
                        parameter.title(),
                        Escape.c(value.toString())
                                + (parameter.unit() == null ? "" : " " + parameter.unit()),
                        parameter.explains());
            }
        }
        if (table.hasRows()) {
            table.write(out.blank());
        }
    }

    private static void fields(TextWriter out, Register register) {
        if (register.fields().isEmpty()) {
            return;
        }
        out.blank().line("### %s", register.name()).blank();
        MarkdownTable table = MarkdownTable.of("bits", "field", "access", "meaning");
        for (Field field : register.fields()) {
            table.row(field.bitRange(), field.name(), field.access(), field.explains());
        }
        table.write(out);
    }
}
