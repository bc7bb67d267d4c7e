package polymetron.handoff;

import java.util.ArrayList;
import java.util.List;
import java.util.TreeMap;
import java.util.stream.Collectors;
import polymetron.address.AddressRange;
import polymetron.elaborate.TargetRange;
import polymetron.software.MemoryBuffer;
import polymetron.software.ProgramRegions;
import polymetron.software.SoftwareView;

/**
 * The linker script for the GNU linker. Instructions and constants go to where the processor starts, variables to the
 * memory that can be written, and what a program puts into a section {@code .memory.NAME} to the memory of that name. What
 * begins with values is loaded behind the constants and copied by the start-up code, which finds it in a table. Each kind
 * of use is a segment of its own, so that nothing is both writable and executable.
 */
final class LinkerScript implements Exporter {
    /** Bytes of a stack that the program does not choose. */
    private static final int STACK = 0x400;

    @Override
    public HandoffFile export(SoftwareView view, HandoffNames names) {
        return new HandoffFile(names.of(view, ".ld"), "linker script", new Text(view).write(names));
    }

    /** A memory besides that of the program and that of its variables. */
    private record Other(TargetRange memory, String region, List<AddressRange> pieces) {
        boolean isWritable() {
            return memory.form().isWritable();
        }
    }

    private static final class Text {
        private final SoftwareView view;
        private final StringBuilder out = new StringBuilder();

        private Text(SoftwareView view) {
            this.view = view;
        }

        private String write(HandoffNames names) {
            line("/*");
            line(
                    " * %s: memory layout for the GNU linker.",
                    CText.safe(view.platform().platform().name()));
            line(
                    " * Platform fingerprint %s. Made by Polymetron; changes here are lost.",
                    names.fingerprint());
            if (!view.harts().isEmpty()) {
                line(
                        " * For %s; compile with %s.",
                        String.join(
                                " and ",
                                view.harts().stream()
                                        .map(hart -> hart.label())
                                        .distinct()
                                        .toList()),
                        view.instructionSet().compilerOptions());
            }
            line(" */");
            ProgramRegions regions;
            try {
                regions = ProgramRegions.of(view);
            } catch (ProgramRegions.NoRegions obstacle) {
                line("/* There is no layout: %s. */", obstacle.getMessage());
                return out.toString();
            }
            layout(regions);
            return out.toString();
        }

        private void layout(ProgramRegions regions) {
            String code = quoted(regions.code().memory());
            String data = quoted(regions.data().memory());
            boolean readable = view.isProgramRead();
            String load = readable && !regions.isOne() ? " AT > " + code : "";
            List<Other> others = others(regions);
            line("OUTPUT_ARCH(riscv)");
            line("ENTRY(_start)");
            line("");
            memory(regions, others);
            line("");
            line("PHDRS");
            line("{");
            line("    code PT_LOAD FLAGS(5);");
            line("    variables PT_LOAD FLAGS(6);");
            for (int index = 0; index < others.size(); index++) {
                if (others.get(index).isWritable()) {
                    line("    other%s PT_LOAD FLAGS(6);", index);
                }
            }
            line("}");
            line("");
            line("__stack_size = DEFINED(__stack_size) ? __stack_size : 0x%X;", STACK);
            line("__reset_vector = 0x%08X;", view.harts().getFirst().resetVector());
            line("");
            line("SECTIONS");
            line("{");
            code(code);
            // What cannot be read where it is executed lies with the variables, filled by the
            // bitstream.
            constants(others, readable ? code : data, readable ? "code" : "variables");
            variables(data, load);
            for (int index = 0; index < others.size(); index++) {
                if (others.get(index).isWritable()) {
                    other(others.get(index), index, readable ? " AT > " + code : "");
                }
            }
            uninitialised(data);
            line("    __heap_start = ALIGN(__noinit_end, 16);");
            line("    __stack_top = ORIGIN(%s) + LENGTH(%s);", data, data);
            line(
                    "    __heap_end = __stack_top - __stack_size * %s;",
                    Math.max(1, view.harts().size()));
            line("    PROVIDE(_end = __heap_start);");
            line("    PROVIDE(end = __heap_start);");
            line(
                    "    ASSERT(__heap_start <= __heap_end, \"%s (%s bytes for this program) has no"
                            + " room left for the stack\")",
                    regions.data().memory().block().name(),
                    Long.toUnsignedString(regions.data().range().sizeBytes()));
            line("}");
        }

        private void memory(ProgramRegions regions, List<Other> others) {
            line("MEMORY");
            line("{");
            boolean one = regions.isOne();
            region(
                    quoted(regions.code().memory()),
                    regions.code().range(),
                    one ? "rwx" : regions.code().memory().form().isWritable() ? "rwx" : "rx");
            if (!one) {
                region(quoted(regions.data().memory()), regions.data().range(), "rw");
            }
            for (Other other : others) {
                for (int at = 0; at < other.pieces().size(); at++) {
                    region(
                            at == 0 ? other.region() : piece(other, at),
                            other.pieces().get(at),
                            other.isWritable() ? "rw" : "r");
                }
            }
            line("}");
            for (MemoryBuffer buffer : MemoryBuffer.of(view.platform())) {
                for (TargetRange memory : view.dataMemories()) {
                    AddressRange seen = buffer.seenIn(memory);
                    if (seen != null) {
                        line(
                                "/* %s writes 0x%08X to 0x%08X by itself: not in any region. */",
                                buffer.block().name(), seen.base(), seen.last());
                    }
                }
            }
        }

        private static String piece(Other other, int number) {
            return '"' + other.memory().block().name() + "_part" + (number + 1) + '"';
        }

        private void region(String name, AddressRange range, String may) {
            line(
                    "    %s (%s) : ORIGIN = 0x%08X, LENGTH = 0x%X",
                    name, may, range.base(), range.sizeBytes());
        }

        /** Memory that is not the program's, nor its variables', and has something left for it. */
        private List<Other> others(ProgramRegions regions) {
            List<Other> others = new ArrayList<>();
            for (TargetRange memory : view.dataMemories()) {
                if (memory.block() == regions.code().memory().block()
                        || memory.block() == regions.data().memory().block()) {
                    continue;
                }
                List<AddressRange> pieces = ProgramRegions.free(view, memory);
                if (!pieces.isEmpty()) {
                    others.add(new Other(memory, quoted(memory), pieces));
                }
            }
            return others;
        }

        private void code(String region) {
            line("    .text __reset_vector :");
            line("    {");
            line("        KEEP(*(.init))");
            line("        *(.text .text.*)");
            line("        INPUT_SECTION_FLAGS(SHF_ALLOC & SHF_EXECINSTR & !SHF_WRITE) *(*)");
            line("        . = ALIGN(4);");
            line("    } > %s :code", region);
            line("");
        }

        /** In no segment: nothing loads it, and tools that copy programs look for what is loaded at its address. */
        private void uninitialised(String data) {
            line("    .bss (NOLOAD) : ALIGN(4)");
            line("    {");
            line("        __bss_start = .;");
            line("        *(.sbss .sbss.*)");
            line("        *(.bss .bss.* COMMON)");
            line("        . = ALIGN(4);");
            line("        __bss_end = .;");
            line("    } > %s :NONE", data);
            line("");
            line("    /* Neither loaded nor cleared: keeps its values over a reset. */");
            line("    .noinit (NOLOAD) : ALIGN(4)");
            line("    {");
            line("        *(.noinit .noinit.*)");
            line("        . = ALIGN(4);");
            line("        __noinit_end = .;");
            line("    } > %s :NONE", data);
            line("");
        }

        private void other(Other other, int index, String load) {
            String name = other.memory().block().name();
            line("    .memory.%s : ALIGN(4)", name);
            line("    {");
            line("        LONG(0); /* tools that copy programs want no empty section here */");
            line("        *(.memory.%s .memory.%s.*)", name, name);
            line("        . = ALIGN(4);");
            line("    } > %s%s :other%s", other.region(), load, index);
            line("");
            line("    .noinit.memory.%s (NOLOAD) : ALIGN(4)", name);
            line("    {");
            line("        *(.noinit.memory.%s .noinit.memory.%s.*)", name, name);
            line("    } > %s :NONE", other.region());
            line("");
        }

        /**
         * Every section of a kind whose name does not begin with one of these, which have places of their own. The linker
         * has no pattern for "all but", so there is one for each letter at which a name can differ.
         */
        private static String except(String... prefixes) {
            TreeMap<String, String> differing = new TreeMap<>();
            for (String prefix : prefixes) {
                for (int length = 0; length < prefix.length(); length++) {
                    differing.merge(
                            prefix.substring(0, length),
                            prefix.substring(length, length + 1),
                            (one, other) -> one.contains(other) ? one : one + other);
                }
            }
            return differing.entrySet().stream()
                    .map(entry -> "%s[!%s]*".formatted(entry.getKey(), entry.getValue()))
                    .collect(Collectors.joining(" "));
        }

        private void constants(List<Other> others, String region, String segment) {
            line("    .rodata : ALIGN(4)");
            line("    {");
            line("        *(.rodata .rodata.* .srodata .srodata.*)");
            line(
                    "        INPUT_SECTION_FLAGS(SHF_ALLOC & !SHF_EXECINSTR & !SHF_WRITE) *(%s)",
                    except(".memory."));
            line("        . = ALIGN(4);");
            line("        __preinit_array_start = .;");
            line("        KEEP(*(.preinit_array .preinit_array.*))");
            line("        __preinit_array_end = .;");
            line("        __init_array_start = .;");
            line("        KEEP(*(SORT_BY_INIT_PRIORITY(.init_array.*)))");
            line("        KEEP(*(.init_array))");
            line("        __init_array_end = .;");
            line("        __fini_array_start = .;");
            line("        KEEP(*(SORT_BY_INIT_PRIORITY(.fini_array.*)))");
            line("        KEEP(*(.fini_array))");
            line("        __fini_array_end = .;");
            line("        /* What start-up code copies: from, to, bytes. */");
            line("        __copy_table_start = .;");
            entry(".data");
            others.stream()
                    .filter(Other::isWritable)
                    .forEach(other -> entry(".memory." + other.memory().block().name()));
            line("        __copy_table_end = .;");
            line("    } > %s :%s", region, segment);
            line("");
        }

        private void entry(String section) {
            line(
                    "        LONG(LOADADDR(%s)); LONG(ADDR(%s)); LONG(SIZEOF(%s));",
                    section, section, section);
        }

        private void variables(String data, String load) {
            line("    .data : ALIGN(4)");
            line("    {");
            line("        __data_start = .;");
            line("        LONG(0); /* tools that copy programs want no empty section here */");
            line("        *(.data .data.*)");
            line(
                    "        INPUT_SECTION_FLAGS(SHF_ALLOC & SHF_WRITE) *(%s)",
                    except(".memory.", ".noinit", ".bss", ".sbss", ".sdata", "COMMON"));
            line("        . = ALIGN(4);");
            line("        __global_pointer$ = . + 0x7F0;");
            line("        *(.sdata .sdata.*)");
            line("        . = ALIGN(4);");
            line("        __data_end = .;");
            line("    } > %s%s :variables", data, load);
            line("");
        }

        /** Quoted, because org, len, o and l are words of the MEMORY command. */
        private static String quoted(TargetRange memory) {
            return '"' + memory.block().name() + '"';
        }

        private void line(String format, Object... values) {
            out.append(values.length == 0 ? format : format.formatted(values)).append('\n');
        }
    }
}
