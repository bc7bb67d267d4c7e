package polymetron.handoff;

import polymetron.address.Address;
import polymetron.elaborate.InterruptLink;
import polymetron.elaborate.Register;
import polymetron.elaborate.TargetRange;
import polymetron.library.Field;

/** The register reference as Markdown: every register with its absolute address and its fields. */
final class RegisterReference implements Exporter {
    @Override
    public HandoffFile export(SoftwareView view, String baseName, String fingerprint) {
        StringBuilder out = new StringBuilder();
        out.append("# ").append(view.platform().platform().name()).append(": registers\n\n");
        out.append("Platform fingerprint `").append(fingerprint).append("`.\n\n");
        out.append("| block | type | base | last | size |\n| --- | --- | --- | --- | ---: |\n");
        for (TargetRange target : view.targets()) {
            out.append(
                    "| %s | %s | `%s` | `%s` | %s |\n"
                            .formatted(
                                    target.label(),
                                    target.block().type().title(),
                                    Address.format(target.range().base()),
                                    Address.format(target.range().last()),
                                    Address.formatSize(target.form().sizeBytes())));
        }
        for (TargetRange target : view.devices()) {
            block(out, view, target);
        }
        return new HandoffFile(baseName + "_registers.md", "register reference", out.toString());
    }

    private static void block(StringBuilder out, SoftwareView view, TargetRange target) {
        out.append("\n## ")
                .append(target.label())
                .append("\n\n")
                .append(target.block().type().description())
                .append("\n");
        for (InterruptLink link : view.interruptsOf(target.block())) {
            out.append(
                    "\nInterrupt `%s`: %s input %s, %s.\n"
                            .formatted(
                                    link.source().name(),
                                    link.wire().block(),
                                    link.wire().input(),
                                    link.source().type().trigger()));
        }
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
            if (register.type().condition() != null) {
                meaning += " When " + register.type().condition() + ".";
            }
            if (register.type().readEffect() != null) {
                meaning += " Reading " + register.type().readEffect() + ".";
            }
            out.append(
                    "| %s | `%s` | `+0x%02X` | %s | %s | `0x%X` | %s |\n"
                            .formatted(
                                    name,
                                    Address.format(target.range().base() + register.offset()),
                                    register.offset(),
                                    register.width(),
                                    register.access(),
                                    register.reset(),
                                    meaning));
        }
        for (Register register : target.registers()) {
            fields(out, register);
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
            String bits =
                    field.bits() == 1
                            ? Integer.toString(field.lowBit())
                            : "%s:%s".formatted(field.lowBit() + field.bits() - 1, field.lowBit());
            out.append(
                    "| %s | %s | %s | %s |\n"
                            .formatted(
                                    bits,
                                    field.name(),
                                    field.access() == null ? register.access() : field.access(),
                                    field.explains()));
        }
    }
}
