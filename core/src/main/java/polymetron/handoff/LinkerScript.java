package polymetron.handoff;

import polymetron.address.Address;
import polymetron.elaborate.TargetRange;

/**
 * The linker script for the GNU linker: one region for each memory, the program where the processor starts,
 * variables in the memory that can be written.
 */
final class LinkerScript implements Exporter {
    @Override
    public HandoffFile export(SoftwareView view, String baseName, String fingerprint) {
        return new HandoffFile(baseName + ".ld", "linker script", text(view, fingerprint));
    }

    private static String text(SoftwareView view, String fingerprint) {
        StringBuilder out = new StringBuilder();
        out.append("/*\n * ")
                .append(CText.safe(view.platform().platform().name()))
                .append(": memory layout for the GNU linker.\n * Platform fingerprint ")
                .append(fingerprint)
                .append(". Made by Polymetron; changes here are lost.\n */\n");
        if (view.program() == null || view.dataMemory().isEmpty()) {
            out.append(
                    "/* There is no layout: the processor's reset vector is in no memory that it"
                            + " reaches. */\n");
            return out.toString();
        }
        String program = region(view.program());
        String data = region(view.dataMemory().get());
        out.append("OUTPUT_ARCH(riscv)\nENTRY(_start)\n\nMEMORY\n{\n");
        for (TargetRange memory : view.memories()) {
            out.append(
                    "    %s (%s) : ORIGIN = 0x%08X, LENGTH = 0x%X\n"
                            .formatted(
                                    region(memory),
                                    memory.form().isWritable() ? "rwx" : "rx",
                                    memory.range().base(),
                                    memory.form().sizeBytes()));
        }
        out.append("}\n\n");
        out.append("__stack_size = DEFINED(__stack_size) ? __stack_size : 0x400;\n");
        out.append(
                "__reset_vector = 0x%08X;\n\n"
                        .formatted(view.processor().shape().number("RESET_VECTOR")));
        out.append("SECTIONS\n{\n");
        out.append(
                "    .text __reset_vector :\n"
                        + "    {\n"
                        + "        KEEP(*(.init))\n"
                        + "        *(.text .text.*)\n");
        out.append(
                        "        *(.rodata .rodata.* .srodata .srodata.*)\n"
                                + "        . = ALIGN(4);\n"
                                + "    } > ")
                .append(program);
        out.append(
                "\n\n"
                        + "    .data : ALIGN(4)\n"
                        + "    {\n"
                        + "        __data_start = .;\n"
                        + "        *(.data .data.*)\n");
        out.append(
                "        __global_pointer$ = . + 0x800;\n"
                        + "        *(.sdata .sdata.*)\n"
                        + "        . = ALIGN(4);\n");
        out.append("        __data_end = .;\n    } > ").append(data);
        if (!program.equals(data)) {
            out.append(" AT > ").append(program);
        }
        out.append("\n    __data_load = LOADADDR(.data);\n\n");
        out.append(
                "    .bss (NOLOAD) : ALIGN(4)\n"
                        + "    {\n"
                        + "        __bss_start = .;\n"
                        + "        *(.sbss .sbss.* .bss .bss.* COMMON)\n");
        out.append("        . = ALIGN(4);\n        __bss_end = .;\n    } > ")
                .append(data)
                .append("\n\n");
        out.append("    __heap_start = ALIGN(__bss_end, 16);\n");
        out.append("    __stack_top = ORIGIN(%s) + LENGTH(%s);\n".formatted(data, data));
        out.append("    __heap_end = __stack_top - __stack_size;\n");
        out.append(
                "    ASSERT(__heap_start <= __heap_end, \"%s (%s) has no room left for the stack\")\n"
                        .formatted(
                                data,
                                Address.formatSize(view.dataMemory().get().form().sizeBytes())));
        out.append("\n    /DISCARD/ : { *(.eh_frame .eh_frame_hdr .note .note.* .comment) }\n}\n");
        return out.toString();
    }

    private static String region(TargetRange memory) {
        return memory.label().replace('.', '_');
    }
}
