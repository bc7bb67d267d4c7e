package polymetron.handoff;

import polymetron.address.Address;
import polymetron.elaborate.TargetRange;
import polymetron.program.ProgramPlace;
import polymetron.program.Reading;

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
        String obstacle = obstacle(view);
        if (obstacle != null) {
            out.append("/* There is no layout: %s. */\n".formatted(obstacle));
            return out.toString();
        }
        String program = region(view.program());
        String data = region(view.dataMemory().orElseThrow());
        boolean readable = view.place().reading() == Reading.SAME_ADDRESS;
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
                        .formatted(view.processor().shape().number(ProgramPlace.RESET_VECTOR)));
        out.append("SECTIONS\n{\n");
        String constants =
                "        *(.rodata .rodata.* .srodata .srodata.*)\n        . = ALIGN(4);\n";
        out.append("    .text __reset_vector :\n    {\n");
        out.append("        KEEP(*(.init))\n        *(.text .text.*)\n");
        out.append(readable ? constants : "        . = ALIGN(4);\n");
        out.append("    } > ").append(program).append("\n\n");
        if (!readable) {
            // What cannot be read where it is executed lies with the variables, filled by the
            // bitstream.
            out.append("    .rodata : ALIGN(4)\n    {\n").append(constants);
            out.append("    } > ").append(data).append("\n\n");
        }
        out.append(
                "    .data : ALIGN(4)\n"
                        + "    {\n"
                        + "        __data_start = .;\n"
                        + "        *(.data .data.*)\n");
        out.append(
                "        __global_pointer$ = . + 0x800;\n"
                        + "        *(.sdata .sdata.*)\n"
                        + "        . = ALIGN(4);\n");
        out.append("        __data_end = .;\n    } > ").append(data);
        if (readable && !program.equals(data)) {
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
                                view.dataMemory().get().block().name(),
                                Address.formatSize(view.dataMemory().get().form().sizeBytes())));
        out.append("\n    .note.platform 0 : { KEEP(*(.note.platform)) }\n");
        out.append("    /DISCARD/ : { *(.eh_frame .eh_frame_hdr .note .note.* .comment) }\n}\n");
        return out.toString();
    }

    /** Why no program can be laid out; null when one can. */
    private static String obstacle(SoftwareView view) {
        if (view.program() == null) {
            return "the processor's reset vector is in no memory that it reaches";
        }
        if (!view.place().allowsProgram()) {
            return "%s executes from %s at 0x%08X, but when it loads it finds %s"
                    .formatted(
                            view.processor().name(),
                            view.program().block().name(),
                            view.program().range().base(),
                            view.place().reading() == Reading.COVERED
                                    ? view.place().asData().block().name() + " there"
                                    : "it at 0x%08X"
                                            .formatted(view.place().asData().range().base()));
        }
        return view.dataMemory().isPresent() ? null : "there is no memory for variables";
    }

    /** Quoted, because org, len, o and l are words of the MEMORY command. */
    private static String region(TargetRange memory) {
        return '"' + memory.block().name() + '"';
    }
}
