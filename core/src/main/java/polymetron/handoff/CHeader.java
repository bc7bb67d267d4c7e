package polymetron.handoff;

import polymetron.elaborate.TargetRange;
import polymetron.software.SoftwareView;

/** The C header: addresses, harts, parameters, interrupts, registers, clock rates, and checks at compile time. */
final class CHeader implements Exporter {
    @Override
    public HandoffFile export(SoftwareView view, HandoffNames names) {
        return new HandoffFile(names.of(view, ".h"), "C header", new Text(view, names).write());
    }

    private static final class Text {
        private final SoftwareView view;
        private final HandoffNames names;
        private final StringBuilder out = new StringBuilder();

        private Text(SoftwareView view, HandoffNames names) {
            this.view = view;
            this.names = names;
        }

        private String write() {
            String title = CText.safe(view.platform().platform().name());
            String guard = names.guard(view);
            line("/*");
            line(" * %s: addresses, interrupts, registers and clocks for software.", title);
            if (names.hasSeveral()) {
                line(" * What %s sees; other processors have headers of their own.", view.name());
            }
            line(
                    " * Platform fingerprint %s. Made by Polymetron; changes here are lost.",
                    names.fingerprint());
            line(" */");
            line("#ifndef %s", guard);
            line("#define %s", guard);
            line("");
            line("#ifdef __ASSEMBLER__");
            line("#define PLATFORM_U(value) value");
            line("#define PLATFORM_ULL(value) value");
            line("#else");
            line("#include <stdint.h>");
            line("#define PLATFORM_U(value) value##u");
            line("#define PLATFORM_ULL(value) value##ull");
            line("#endif");
            line("");
            line("#define PLATFORM_NAME \"%s\"", title);
            line("#define PLATFORM_FINGERPRINT \"%s\"", names.fingerprint());
            line(
                    "#define PLATFORM_FINGERPRINT_HIGH PLATFORM_U(0x%s)",
                    names.fingerprint().substring(0, 8));
            line(
                    "#define PLATFORM_FINGERPRINT_LOW PLATFORM_U(0x%s)",
                    names.fingerprint().substring(8));
            for (HeaderSection section : HeaderMacros.of(view)) {
                line("");
                line("/* %s */", CText.safe(section.title()));
                for (Macro macro : section.macros()) {
                    line("#define %s%s %s", macro.name(), macro.arguments(), macro.value());
                }
            }
            line("");
            checks();
            line("");
            line("#endif");
            return out.toString();
        }

        private void checks() {
            line("#ifndef __ASSEMBLER__");
            line("#ifdef __cplusplus");
            line("#define PLATFORM_CHECK static_assert");
            line("#else");
            line("#define PLATFORM_CHECK _Static_assert");
            line("#endif");
            TargetRange before = null;
            for (TargetRange target : view.targets()) {
                String name = CText.macro(target.label());
                line(
                        "PLATFORM_CHECK(%s_LAST <= UINTPTR_MAX, \"a pointer cannot reach all of"
                                + " %s\");",
                        name, target.label());
                line(
                        "PLATFORM_CHECK(%s_LAST - %s_BASE == %s_SIZE - 1, \"%s has another"
                                + " size\");",
                        name, name, name, target.label());
                if (before != null) {
                    line(
                            "PLATFORM_CHECK(%s_LAST < %s_BASE, \"%s and %s overlap\");",
                            CText.macro(before.label()), name, before.label(), target.label());
                }
                before = target;
            }
            line("#endif");
        }

        private void line(String format, Object... values) {
            out.append(values.length == 0 ? format : format.formatted(values)).append('\n');
        }
    }
}
