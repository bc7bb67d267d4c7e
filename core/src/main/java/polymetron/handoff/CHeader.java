package polymetron.handoff;

import java.util.HashSet;
import java.util.List;
import java.util.Set;
import polymetron.elaborate.Domain;
import polymetron.elaborate.InterruptLink;
import polymetron.elaborate.Register;
import polymetron.elaborate.TargetRange;
import polymetron.library.Field;
import polymetron.serial.Uart;

/** The C header: bases, sizes, interrupt numbers, registers, clock rates, and checks at compile time. */
final class CHeader implements Exporter {
    @Override
    public HandoffFile export(SoftwareView view, String baseName, String fingerprint) {
        return new HandoffFile(
                baseName + ".h", "C header", new Text(view, baseName, fingerprint).write());
    }

    private static final class Text {
        private final SoftwareView view;
        private final String baseName;
        private final String fingerprint;
        private final StringBuilder out = new StringBuilder();
        private final Set<String> used = new HashSet<>();

        private Text(SoftwareView view, String baseName, String fingerprint) {
            this.view = view;
            this.baseName = baseName;
            this.fingerprint = fingerprint;
        }

        private String write() {
            String title = CText.safe(view.platform().platform().name());
            String guard = CText.macro(baseName) + "_H";
            line("/*");
            line(" * %s: addresses, interrupts, registers and clocks for software.", title);
            line(
                    " * Platform fingerprint %s. Made by Polymetron; changes here are lost.",
                    fingerprint);
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
            line("#define PLATFORM_FINGERPRINT \"%s\"", fingerprint);
            define(
                    "PLATFORM_FINGERPRINT_HIGH",
                    "PLATFORM_U(0x%s)".formatted(fingerprint.substring(0, 8)));
            define(
                    "PLATFORM_FINGERPRINT_LOW",
                    "PLATFORM_U(0x%s)".formatted(fingerprint.substring(8)));
            line("");
            line("/* Clocks, in hertz. */");
            for (Domain domain : view.platform().domains()) {
                define(
                        "CLOCK_%s_HZ".formatted(CText.macro(domain.name())),
                        "PLATFORM_U(%s)".formatted(domain.frequencyHz()));
            }
            for (TargetRange target : view.targets()) {
                line("");
                target(target);
            }
            line("");
            checks();
            line("");
            line("#endif");
            return out.toString();
        }

        private void target(TargetRange target) {
            String name = name(target);
            line(
                    "/* %s: %s (%s). */",
                    target.label(),
                    target.block().type().title(),
                    target.block().type().identity());
            define(name + "_BASE", CText.constant(target.range().base()));
            define(name + "_SIZE", CText.constant(target.form().sizeBytes()));
            define(name + "_LAST", CText.constant(target.range().last()));
            if (target.form().isMemory()) {
                return;
            }
            long clockHz = view.platform().frequencyHz(target.block());
            if (clockHz > 0) {
                define(name + "_CLOCK_HZ", "PLATFORM_U(%s)".formatted(clockHz));
            }
            if ("riscv-aclint".equals(target.block().type().software().standard()) && clockHz > 0) {
                long ticks = clockHz / target.block().shape().number("DIVIDER");
                define(name + "_TICK_HZ", "PLATFORM_U(%s)".formatted(ticks));
            }
            Uart.baudRate(view.platform(), target.block())
                    .ifPresent(
                            rate -> {
                                define(name + "_BAUD", "PLATFORM_U(%s)".formatted(rate.wanted()));
                                define(
                                        name + "_DIVISOR",
                                        "PLATFORM_U(%s)".formatted(rate.divisor()));
                            });
            interrupts(name, view.interruptsOf(target.block()));
            for (Register register : target.registers()) {
                register(name, register);
            }
        }

        private void interrupts(String name, List<InterruptLink> links) {
            for (InterruptLink link : links) {
                if (link.sink().type().line().equals("device")) {
                    long devices =
                            links.stream()
                                    .filter(other -> other.sink().type().line().equals("device"))
                                    .count();
                    String macro =
                            devices > 1
                                    ? name + "_" + CText.macro(link.source().name())
                                    : name + "_IRQ";
                    define(macro, "PLATFORM_U(%s)".formatted(link.wire().input()));
                    if (link.wire().priority() != null) {
                        define(
                                macro + "_PRIORITY",
                                "PLATFORM_U(%s)".formatted(link.wire().priority()));
                    }
                }
            }
        }

        private void register(String name, Register register) {
            String macro = name + "_" + CText.macro(register.name());
            if (register.isRow()) {
                define(
                        macro + "_OFFSET(n)",
                        "(PLATFORM_U(0x%X) + PLATFORM_U(%s) * ((n) - PLATFORM_U(%s)))"
                                .formatted(register.offset(), register.stride(), register.first()));
                define(macro + "_COUNT", "PLATFORM_U(%s)".formatted(register.count()));
            } else {
                define(macro + "_OFFSET", "PLATFORM_U(0x%X)".formatted(register.offset()));
            }
            for (Field field : register.fields()) {
                // A mask that is the whole register says nothing.
                if (field.bits() < register.width()) {
                    define(
                            macro + "_" + CText.macro(field.name()) + "_MASK",
                            CText.constant(field.mask()));
                    define(
                            macro + "_" + CText.macro(field.name()) + "_SHIFT",
                            "PLATFORM_U(%s)".formatted(field.lowBit()));
                }
            }
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
                String name = name(target);
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
                            name(before), name, before.label(), target.label());
                }
                before = target;
            }
            line("#endif");
        }

        private static String name(TargetRange target) {
            return CText.macro(target.label().replace('.', '_'));
        }

        /** Two blocks can lead to one macro (a register B_C of a, a register C of a_b); the second is numbered. */
        private void define(String macro, String value) {
            String free = macro;
            for (int number = 2; !used.add(free); number++) {
                int arguments = macro.indexOf('(');
                String stem = arguments < 0 ? macro : macro.substring(0, arguments);
                free = stem + "_" + number + (arguments < 0 ? "" : macro.substring(arguments));
            }
            line("#define %s %s", free, value);
        }

        private void line(String format, Object... values) {
            out.append(values.length == 0 ? format : format.formatted(values)).append('\n');
        }
    }
}
