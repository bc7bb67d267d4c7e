package polymetron.bench.machine;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.output.HandoffFile;
import polymetron.output.handoff.Handoff;
import polymetron.output.image.ElfReader;
import polymetron.output.image.ProgramImage;
import polymetron.outside.Tool;
import polymetron.software.SoftwareView;

/** A C program compiled and linked with the hand-off of a platform, as a software team would. */
final class BuiltProgram {
    private static final String PRINT =
            """
            #include "drivers/uart.h"
            static inline void print(const char *text)
            {
                while (*text)
                    uart_send(PLATFORM_CONSOLE_BASE, *text++);
            }
            static inline void print_hex(uint32_t number)
            {
                for (int shift = 28; shift >= 0; shift -= 4)
                    uart_send(PLATFORM_CONSOLE_BASE, "0123456789abcdef"[number >> shift & 15u]);
            }
            """;

    private BuiltProgram() {}

    /**
     * The first program of a platform.
     *
     * @param body what follows the header, the UART's driver and {@code print}
     */
    static ProgramImage of(ElaboratedPlatform platform, Path folder, String body) {
        return of(SoftwareView.of(platform), folder, body);
    }

    static ProgramImage of(SoftwareView view, Path folder, String body) {
        Handoff handoff = Handoff.of(view.platform());
        for (HandoffFile file : handoff.files()) {
            Tool.write(folder, file.path(), file.bytes());
        }
        boolean several = SoftwareView.all(view.platform()).size() > 1;
        String stem = handoff.baseName() + (several ? "_" + view.name() : "");
        String start = several ? "start_" + view.name() + ".S" : "start.S";
        Tool.write(
                folder,
                "program.c",
                "#include \"%s.h\"\n".formatted(stem)
                        + (view.console().isPresent() ? PRINT : "")
                        + body);
        Tool.run(
                folder,
                ("riscv64-unknown-elf-gcc -march=rv32im -misa-spec=2.2 -mabi=ilp32 -mcmodel=medany"
                     + " -Os -std=c11 -Wall -Wextra -Werror -ffreestanding -nostdlib -nostartfiles"
                     + " -Wl,--build-id=none -Wl,--fatal-warnings -T %s.ld %s program.c -lgcc -o"
                     + " program.elf")
                        .formatted(stem, start)
                        .split(" "));
        try {
            ProgramImage image =
                    ProgramImage.of(
                            view,
                            ElfReader.read(Files.readAllBytes(folder.resolve("program.elf"))),
                            (byte) 0);
            assertThat(image.problems()).isEmpty();
            return image;
        } catch (IOException failure) {
            throw new UncheckedIOException(failure);
        }
    }

    /** What a program says until some words, and what it still sends, or in so many seconds at the most. */
    static String saysUntil(Machine machine, String words, double seconds) {
        StringBuilder said = new StringBuilder();
        while (said.indexOf(words) < 0 && machine.seconds() < seconds) {
            machine.run(500);
            said.append(
                    new String(
                            machine.console().orElseThrow().takeSent(), StandardCharsets.US_ASCII));
        }
        return said.toString();
    }

    /** What a program says in so many seconds of the board's time. */
    static String says(Machine machine, double seconds) {
        machine.run((long) (machine.clockHz() * seconds));
        return new String(machine.console().orElseThrow().takeSent(), StandardCharsets.US_ASCII);
    }
}
