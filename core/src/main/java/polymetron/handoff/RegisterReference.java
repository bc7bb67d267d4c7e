package polymetron.handoff;

import polymetron.address.Address;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.Field;
import polymetron.elaborate.Register;
import polymetron.elaborate.TargetRange;
import polymetron.expression.Value;
import polymetron.library.ParameterType;
import polymetron.software.DeviceInterrupt;
import polymetron.software.SoftwareView;
import polymetron.software.TargetClock;

/** The register reference as Markdown: every register with its absolute address and its fields. */
final class RegisterReference implements Exporter {
    @Override
    public HandoffFile export(SoftwareView view, HandoffNames names) {
        StringBuilder out = new StringBuilder();
        out.append("# ")
                .append(CText.safe(view.platform().platform().name()))
                .append(": registers\n\n");
        if (names.hasSeveral()) {
            out.append("As ").append(view.name()).append(" sees them.\n\n");
        }
        out.append("Platform fingerprint `").append(names.fingerprint()).append("`.\n\n");
        out.append("| block | type | base | last | size |\n| --- | --- | --- | --- | ---: |\n");
        for (TargetRange target : view.targets()) {
            out.append(
                    "| %s | %s | `%s` | `%s` | %s |\n"
                            .formatted(
                                    target.label(),
                                    target.block().type().title(),
                                    Address.format(target.range().base()),
                                    Address.format(target.range().last()),
                                    Address.formatSize(target.range().sizeBytes())));
        }
        for (TargetRange target : view.devices()) {
            block(out, view, target);
        }
        return new HandoffFile(
                names.of(view, "_registers.md"), "register reference", out.toString());
    }

    private static void block(StringBuilder out, SoftwareView view, TargetRange target) {
        out.append("\n## ")
                .append(target.label())
                .append("\n\n")
                .append(target.block().type().description())
                .append("\n");
        long clockHz = TargetClock.hertz(view.platform(), target.block(), target.form().name());
        if (clockHz > 0) {
            out.append("\nClock %s Hz.\n".formatted(clockHz));
        }
        for (DeviceInterrupt interrupt : view.interruptsOf(target)) {
            out.append("\n%s\n".formatted(words(interrupt)));
        }
        parameters(out, target.block());
        out.append("\n| register | address | offset | bits | access | reset | meaning |\n");
        out.append("| --- | --- | --- | ---: | --- | --- | --- |\n");
        for (Register register : target.registers()) {
            String name =
                    register.isRow()
                            ? "%s[%s…%s]"
                                    .formatted(
                                            register.name(),
                                            register.first(),
                                            register.first() + register.count() - 1)
                            : register.name();
            String meaning = register.type().explains();
            if (register.condition() != null) {
                meaning += " When " + register.condition() + ".";
            }
            if (register.readEffect() != null) {
                meaning += " Reading " + register.readEffect() + ".";
            }
            out.append(
                    "| %s | `%s` | `+0x%02X` | %s | %s | `0x%X` | %s |\n"
                            .formatted(
                                    name,
                                    Address.format(target.range().base() + register.offset()),
                                    register.offset(),
                                    register.width(),
                                    register.access(),
                                    register.reset(clockHz),
                                    meaning));
        }
        for (Register register : target.registers()) {
            fields(out, register);
        }
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

    private static void parameters(StringBuilder out, ElaboratedBlock block) {
        StringBuilder rows = new StringBuilder();
        for (ParameterType parameter : block.type().parameters()) {
            if (parameter.macro() != null) {
                Value value = block.shape().parameters().get(parameter.name());
                rows.append(
                        "| %s | %s%s | %s |\n"
                                .formatted(
                                        parameter.title(),
                                        CText.safe(value.toString()),
                                        parameter.unit() == null ? "" : " " + parameter.unit(),
                                        parameter.explains()));
            }
        }
        if (!rows.isEmpty()) {
            out.append("\n| parameter | value | meaning |\n| --- | --- | --- |\n").append(rows);
        }
    }

    private static void fields(StringBuilder out, Register register) {
        if (register.fields().isEmpty()) {
            return;
        }
        out.append("\n### ")
                .append(register.name())
                .append("\n\n| bits | field | access | meaning |\n| --- | --- | --- | --- |\n");
        for (Field field : register.fields()) {
            out.append(
                    "| %s | %s | %s | %s |\n"
                            .formatted(
                                    field.bitRange(),
                                    field.name(),
                                    field.access(),
                                    field.explains()));
        }
    }
}
