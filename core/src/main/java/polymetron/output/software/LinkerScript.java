package polymetron.output.software;

import java.util.ArrayList;
import java.util.List;
import java.util.TreeMap;
import java.util.stream.Collectors;
import polymetron.address.AddressRange;
import polymetron.elaborate.TargetRange;
import polymetron.output.Exporter;
import polymetron.output.HandoffFile;
import polymetron.output.HandoffNames;
import polymetron.software.MemoryBuffer;
import polymetron.software.ProgramRegions;
import polymetron.software.SoftwareView;
import polymetron.text.Escape;
import polymetron.text.TextWriter;

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
        private final TextWriter out = TextWriter.indentedBy("    ");

        private Text(SoftwareView view) {
            this.view = view;
        }

        private String write(HandoffNames names) {
            out.line("/*");
            out.line(
                    " * %s: memory layout for the GNU linker.",
                    Escape.c(view.platform().platform().name()));
            out.line(
                    " * Platform fingerprint %s. Made by Polymetron; changes here are lost.",
                    names.fingerprint());
            if (!view.harts().isEmpty()) {
                out.line(
                        " * For %s; compile with %s.",
                        String.join(
                                " and ",
                                view.harts().stream()
                                        .map(hart -> hart.label())
                                        .distinct()
                                        .toList()),
                        view.instructionSet().compilerOptions());
            }
            out.line(" */");
            ProgramRegions regions;
            try {
                regions = ProgramRegions.of(view);
            } catch (ProgramRegions.NoRegions obstacle) {
                out.line("/* There is no layout: %s. */", obstacle.getMessage());
                return out.text();
            }
            layout(regions);
            return out.text();
        }

        private void layout(ProgramRegions regions) {
            String code = quoted(regions.code().memory());
            String data = quoted(regions.data().memory());
            boolean readable = view.isProgramRead();
            String load = readable && !regions.isOne() ? " AT > " + code : "";
            List<Other> others = others(regions);
            out.line("OUTPUT_ARCH(riscv)");
            out.line("ENTRY(_start)");
            out.blank();
            memory(regions, others);
            out.blank();
            out.line("PHDRS");
            out.open("{");
            out.line("code PT_LOAD FLAGS(5);");
            out.line("variables PT_LOAD FLAGS(6);");
            for (int index = 0; index < others.size(); index++) {
                if (others.get(index).isWritable()) {
                    out.line("other%s PT_LOAD FLAGS(6);", index);
                }
            }
            out.close("}");
            out.blank();
            out.line("__stack_size = DEFINED(__stack_size) ? __stack_size : 0x%X;", STACK);
            out.line("__reset_vector = 0x%08X;", view.harts().getFirst().resetVector());
            out.blank();
            out.line("SECTIONS");
            out.open("{");
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
            out.line("__heap_start = ALIGN(__noinit_end, 16);");
            out.line("__stack_top = ORIGIN(%s) + LENGTH(%s);", data, data);
            out.line(
                    "__heap_end = __stack_top - __stack_size * %s;",
                    Math.max(1, view.harts().size()));
            out.line("PROVIDE(_end = __heap_start);");
            out.line("PROVIDE(end = __heap_start);");
            out.line(
                    "ASSERT(__heap_start <= __heap_end, \"%s (%s bytes for this program) has no"
                            + " room left for the stack\")",
                    regions.data().memory().block().name(),
                    Long.toUnsignedString(regions.data().range().sizeBytes()));
            out.close("}");
        }

        private void memory(ProgramRegions regions, List<Other> others) {
            out.line("MEMORY");
            out.open("{");
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
            out.close("}");
            for (MemoryBuffer buffer : MemoryBuffer.of(view.platform())) {
                for (TargetRange memory : view.dataMemories()) {
                    AddressRange seen = buffer.seenIn(memory);
                    if (seen != null) {
                        out.line(
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
            out.line(
                    "%s (%s) : ORIGIN = 0x%08X, LENGTH = 0x%X",
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
            out.line(".text __reset_vector :");
            out.open("{");
            out.line("KEEP(*(.init))");
            out.line("*(.text .text.*)");
            out.line("INPUT_SECTION_FLAGS(SHF_ALLOC & SHF_EXECINSTR & !SHF_WRITE) *(*)");
            out.line(". = ALIGN(4);");
            out.close("} > %s :code", region);
            out.blank();
        }

        /** In no segment: nothing loads it, and tools that copy programs look for what is loaded at its address. */
        private void uninitialised(String data) {
            out.line(".bss (NOLOAD) : ALIGN(4)");
            out.open("{");
            out.line("__bss_start = .;");
            out.line("*(.sbss .sbss.*)");
            out.line("*(.bss .bss.* COMMON)");
            out.line(". = ALIGN(4);");
            out.line("__bss_end = .;");
            out.close("} > %s :NONE", data);
            out.blank();
            out.line("/* Neither loaded nor cleared: keeps its values over a reset. */");
            out.line(".noinit (NOLOAD) : ALIGN(4)");
            out.open("{");
            out.line("*(.noinit .noinit.*)");
            out.line(". = ALIGN(4);");
            out.line("__noinit_end = .;");
            out.close("} > %s :NONE", data);
            out.blank();
        }

        private void other(Other other, int index, String load) {
            String name = other.memory().block().name();
            out.line(".memory.%s : ALIGN(4)", name);
            out.open("{");
            out.line("LONG(0); /* tools that copy programs want no empty section here */");
            out.line("*(.memory.%s .memory.%s.*)", name, name);
            out.line(". = ALIGN(4);");
            out.close("} > %s%s :other%s", other.region(), load, index);
            out.blank();
            out.line(".noinit.memory.%s (NOLOAD) : ALIGN(4)", name);
            out.open("{");
            out.line("*(.noinit.memory.%s .noinit.memory.%s.*)", name, name);
            out.close("} > %s :NONE", other.region());
            out.blank();
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
            out.line(".rodata : ALIGN(4)");
            out.open("{");
            out.line("*(.rodata .rodata.* .srodata .srodata.*)");
            out.line(
                    "INPUT_SECTION_FLAGS(SHF_ALLOC & !SHF_EXECINSTR & !SHF_WRITE) *(%s)",
                    except(".memory."));
            out.line(". = ALIGN(4);");
            out.line("__preinit_array_start = .;");
            out.line("KEEP(*(.preinit_array .preinit_array.*))");
            out.line("__preinit_array_end = .;");
            out.line("__init_array_start = .;");
            out.line("KEEP(*(SORT_BY_INIT_PRIORITY(.init_array.*)))");
            out.line("KEEP(*(.init_array))");
            out.line("__init_array_end = .;");
            out.line("__fini_array_start = .;");
            out.line("KEEP(*(SORT_BY_INIT_PRIORITY(.fini_array.*)))");
            out.line("KEEP(*(.fini_array))");
            out.line("__fini_array_end = .;");
            out.line("/* What start-up code copies: from, to, bytes. */");
            out.line("__copy_table_start = .;");
            entry(".data");
            others.stream()
                    .filter(Other::isWritable)
                    .forEach(other -> entry(".memory." + other.memory().block().name()));
            out.line("__copy_table_end = .;");
            out.close("} > %s :%s", region, segment);
            out.blank();
        }

        private void entry(String section) {
            out.line(
                    "LONG(LOADADDR(%s)); LONG(ADDR(%s)); LONG(SIZEOF(%s));",
                    section, section, section);
        }

        private void variables(String data, String load) {
            out.line(".data : ALIGN(4)");
            out.open("{");
            out.line("__data_start = .;");
            out.line("LONG(0); /* tools that copy programs want no empty section here */");
            out.line("*(.data .data.*)");
            out.line(
                    "INPUT_SECTION_FLAGS(SHF_ALLOC & SHF_WRITE) *(%s)",
                    except(".memory.", ".noinit", ".bss", ".sbss", ".sdata", "COMMON"));
            out.line(". = ALIGN(4);");
            out.line("__global_pointer$ = . + 0x7F0;");
            out.line("*(.sdata .sdata.*)");
            out.line(". = ALIGN(4);");
            out.line("__data_end = .;");
            out.close("} > %s%s :variables", data, load);
            out.blank();
        }

        /** Quoted, because org, len, o and l are words of the MEMORY command. */
        private static String quoted(TargetRange memory) {
            return '"' + memory.block().name() + '"';
        }
    }
}
