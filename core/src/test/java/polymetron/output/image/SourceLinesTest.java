package polymetron.output.image;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import polymetron.outside.Tool;

/** Lines of every instruction against addr2line of the GNU binutils, for each version of the table (DWARF 2 to 5). */
final class SourceLinesTest {
    private static final String FIRST =
            """
            int other(int);
            static int twice(int of)
            {
                int sum = 0;
                for (int at = 0; at < 2; at++) {
                    sum += of;
                }
                return sum;
            }

            int _start(int with)
            {
                #include "part.h"
                return twice(with) + other(with + 1);
            }
            """;

    private static final String SECOND =
            """
            int unused(int of) { return of * 3; }

            # 200 "made.y"
            int other(int of)
            {
                switch (of) {
                case 1:
                    return 7;
                case 900:
                    return other(of - 1);
                default:
                    return of << 2;
                }
            }
            """;

    @TempDir private Path folder;

    private byte[] program(String version) throws IOException {
        Tool.write(folder, "part.h", "with ^= 3;\n");
        Tool.write(folder, "first.c", FIRST);
        Tool.write(folder, "second.c", SECOND);
        Tool.run(
                folder,
                ("riscv64-unknown-elf-gcc -gdwarf-%s -O1 -march=rv32imc -mabi=ilp32 -nostdlib"
                     + " -nostartfiles -ffunction-sections -Wl,--gc-sections,-Ttext=0x200 -o"
                     + " program.elf first.c second.c")
                        .formatted(version)
                        .split(" "));
        return Files.readAllBytes(folder.resolve("program.elf"));
    }

    @ParameterizedTest
    @ValueSource(strings = {"2", "3", "4", "5"})
    void everyInstructionHasTheLineThatBinutilsSay(String version) throws IOException {
        ProgramFile program = ElfReader.read(program(version));
        ProgramFile.Section text =
                program.sections().stream()
                        .filter(ProgramFile.Section::executable)
                        .findFirst()
                        .orElseThrow();
        List<String> command = new ArrayList<>(List.of("riscv64-unknown-elf-addr2line", "-e"));
        command.add("program.elf");
        List<String> found = new ArrayList<>();
        for (long at = text.address(); at < text.address() + text.sizeBytes(); at += 2) {
            command.add(Long.toHexString(at));
            found.add(program.lines().at(at).orElse("?"));
        }
        List<String> expected =
                Tool.run(folder, command.toArray(String[]::new))
                        .lines()
                        .map(line -> line.replaceFirst(".*/", "").replaceFirst(" .*", ""))
                        .toList();
        assertThat(found).isEqualTo(expected).hasSizeGreaterThan(20);
        assertThat(found).anyMatch(line -> line.startsWith("part.h:"));
        assertThat(found).anyMatch(line -> line.startsWith("made.y:20"));
        assertThat(program.place(text.address()).orElseThrow()).contains(" at ").contains(".c:");
        assertThat(program.lines().at(text.address() - 2)).isEmpty();
    }

    @Test
    void aSpoiltTableSaysLess() throws IOException {
        program("5");
        Tool.run(
                folder,
                "riscv64-unknown-elf-objcopy",
                "--dump-section",
                ".debug_line=table",
                "program.elf");
        byte[] right = Files.readAllBytes(folder.resolve("table"));
        Random random = new Random(5);
        int known = 0;
        for (int round = 0; round < 5000; round++) {
            byte[] spoilt = Arrays.copyOf(right, 1 + random.nextInt(right.length));
            for (int change = random.nextInt(6); change > 0; change--) {
                spoilt[random.nextInt(spoilt.length)] = (byte) random.nextInt();
            }
            SourceLines read = LineTable.read(spoilt, new byte[2], new byte[0]);
            known += read.at(0x200 + 2L * random.nextInt(20)).isPresent() ? 1 : 0;
        }
        assertThat(known).isBetween(1, 4999);
    }
}
