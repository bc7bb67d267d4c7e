package polymetron.output.software;

import polymetron.elaborate.TargetRange;
import polymetron.output.Exporter;
import polymetron.output.HandoffFile;
import polymetron.output.HandoffNames;
import polymetron.software.SoftwareView;
import polymetron.text.Escape;
import polymetron.text.TextWriter;

/** The C header: addresses, harts, parameters, interrupts, registers, clock rates, and checks at compile time. */
final class CHeader implements Exporter {
    @Override
    public HandoffFile export(SoftwareView view, HandoffNames names) {
        return new HandoffFile(names.of(view, ".h"), "C header", new Text(view, names).write());
    }

    private static final class Text {
        private final SoftwareView view;
        private final HandoffNames names;
        private final TextWriter out = TextWriter.indentedBy("    ");

        private Text(SoftwareView view, HandoffNames names) {
            this.view = view;
            this.names = names;
        }

        private String write() {
            String title = Escape.c(view.platform().platform().name());
            String guard = names.guard(view);
            out.line("/*");
            out.line(" * %s: addresses, interrupts, registers and clocks for software.", title);
            if (names.hasSeveral()) {
                out.line(
                        " * What %s sees; other processors have headers of their own.",
                        view.name());
            }
            out.line(
                    " * Platform fingerprint %s. Made by Polymetron; changes here are lost.",
                    names.fingerprint());
            out.line(" */");
            out.line("#ifndef %s", guard);
            out.line("#define %s", guard);
            out.blank();
            out.line("#ifdef __ASSEMBLER__");
            out.line("#define PLATFORM_U(value) value");
            out.line("#define PLATFORM_ULL(value) value");
            out.line("#else");
            out.line("#include <stdint.h>");
            out.line("#define PLATFORM_U(value) value##u");
            out.line("#define PLATFORM_ULL(value) value##ull");
            out.line("#endif");
            out.blank();
            out.line("#define PLATFORM_NAME \"%s\"", title);
            out.line("#define PLATFORM_FINGERPRINT \"%s\"", names.fingerprint());
            out.line(
                    "#define PLATFORM_FINGERPRINT_HIGH PLATFORM_U(0x%s)",
                    names.fingerprint().substring(0, 8));
            out.line(
                    "#define PLATFORM_FINGERPRINT_LOW PLATFORM_U(0x%s)",
                    names.fingerprint().substring(8));
            for (HeaderSection section : HeaderMacros.of(view)) {
                out.blank();
                out.line("/* %s */", Escape.c(section.title()));
                for (Macro macro : section.macros()) {
                    out.line("#define %s%s %s", macro.name(), macro.arguments(), macro.value());
                }
            }
            out.blank();
            checks();
            out.blank();
            out.line("#endif");
            return out.text();
        }

        private void checks() {
            out.line("#ifndef __ASSEMBLER__");
            out.line("#ifdef __cplusplus");
            out.line("#define PLATFORM_CHECK static_assert");
            out.line("#else");
            out.line("#define PLATFORM_CHECK _Static_assert");
            out.line("#endif");
            TargetRange before = null;
            for (TargetRange target : view.targets()) {
                String name = CText.macro(target.label());
                out.line(
                        "PLATFORM_CHECK(%s_LAST <= UINTPTR_MAX, \"a pointer cannot reach all of"
                                + " %s\");",
                        name, target.label());
                out.line(
                        "PLATFORM_CHECK(%s_LAST - %s_BASE == %s_SIZE - 1, \"%s has another"
                                + " size\");",
                        name, name, name, target.label());
                if (before != null) {
                    out.line(
                            "PLATFORM_CHECK(%s_LAST < %s_BASE, \"%s and %s overlap\");",
                            CText.macro(before.label()), name, before.label(), target.label());
                }
                before = target;
            }
            out.line("#endif");
        }
    }
}
