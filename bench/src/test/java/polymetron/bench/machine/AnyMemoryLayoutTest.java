package polymetron.bench.machine;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import org.junit.jupiter.api.RepeatedTest;
import org.junit.jupiter.api.RepetitionInfo;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import polymetron.Shipped;
import polymetron.address.Address;
import polymetron.bus.Protocol;
import polymetron.edit.Edit;
import polymetron.edit.Editor;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.finding.Checks;
import polymetron.finding.Finding;
import polymetron.finding.Fix;
import polymetron.finding.Grade;
import polymetron.library.Vlnv;
import polymetron.output.HandoffFile;
import polymetron.output.handoff.Handoff;
import polymetron.output.image.ElfReader;
import polymetron.output.image.ProgramImage;
import polymetron.outside.Tool;
import polymetron.platform.Bus;
import polymetron.platform.Platform;

/**
 * Whatever the memories of a platform are and wherever they lie: when the checks find no error, a program linked with
 * the hand-off, by the GNU tools, runs on the bench with its constants, initial values and cleared variables right, and
 * the devicetree compiles.
 */
final class AnyMemoryLayoutTest {
    private static final Editor EDITOR = new Editor(Shipped.LIBRARY);
    private static final Vlnv MEMORY = Vlnv.parse("polymetron:memory:block-memory:1.1");

    /** Names that mean something to the linker or in the devicetree, beside one that does not. */
    private static final List<String> NAMES =
            List.of(
                    "org",
                    "len",
                    "l",
                    "o",
                    "cpu_interrupts",
                    "clock_main",
                    "timer_software",
                    "code");

    private static final String PROGRAM =
            """
            #include <stdint.h>
            #include "test_platform.h"
            static const char text[] = "hello ";
            static char last[] = {'y', 'o', 'u'};
            static volatile int counter = 41;
            static volatile int zero;
            static void put(char c)
            {
                volatile uint32_t *uart = (volatile uint32_t *)(uintptr_t)CONSOLE_BASE;
                while (!(uart[5] & 0x20)) {
                }
                uart[0] = (uint8_t)c;
            }
            int main(void)
            {
                for (const char *at = text; *at; at++)
                    put(*at);
                for (int at = 0; at < 3; at++)
                    put(last[at]);
                counter++;
                zero++;
                put(counter == 42 && zero == 1 ? '!' : '?');
                for (;;) {
                }
            }
            """;

    @TempDir private Path folder;

    @RepeatedTest(24)
    void runsWhereTheChecksFindNoError(RepetitionInfo repetition) throws IOException {
        Platform platform = layout(new Random(repetition.getCurrentRepetition()));
        Optional<Platform> sound = settled(platform);
        if (sound.isPresent()) {
            assertThat(says(sound.get())).isEqualTo("hello you!");
        } else {
            // Nothing is made from it, and a finding says so.
            assertThat(errors(platform)).isNotEmpty();
        }
    }

    @Test
    void mostOfThemCanBeSettled() {
        long sound =
                java.util.stream.IntStream.rangeClosed(1, 24)
                        .filter(seed -> settled(layout(new Random(seed))).isPresent())
                        .count();
        assertThat(sound).isGreaterThan(14);
    }

    /** Up to three memories of one or two ports, on the buses of both sides of the processor. */
    private static Platform layout(Random random) {
        Platform platform = Shipped.recipe("console");
        platform = EDITOR.apply(platform, new Edit.RemoveBlock("memory"));
        String fetch = "system";
        if (random.nextBoolean()) {
            fetch = "local";
            platform =
                    EDITOR.apply(
                            platform,
                            new Edit.AddBus(new Bus("local", Protocol.AXI4_LITE, 32, 32, "main")));
            platform =
                    EDITOR.apply(
                            platform, new Edit.Attach("cpu", "instruction", "local", null, null));
        }
        int count = 1 + random.nextInt(3);
        long start = -1;
        for (int index = 0; index < count; index++) {
            String name = NAMES.get((random.nextInt(3) * 3 + index) % NAMES.size());
            if (platform.block(name).isPresent()) {
                continue;
            }
            long size = 4096L << random.nextInt(3);
            int ports = 1 + random.nextInt(2);
            platform =
                    EDITOR.apply(
                            platform,
                            new Edit.AddBlock(
                                    name,
                                    MEMORY,
                                    Map.of(
                                            "SIZE", String.valueOf(size),
                                            "PORTS", String.valueOf(ports),
                                            "WIDTH", String.valueOf(32 << random.nextInt(3)),
                                            "WRITABLE", random.nextInt(4) > 0 ? "1" : "0")));
            for (String input : List.of("clk", "rst")) {
                platform = EDITOR.apply(platform, new Edit.SetDomain(name, input, "main"));
            }
            for (String port : List.of("port", "second").subList(0, ports)) {
                String bus = start < 0 || random.nextInt(3) == 0 ? fetch : "system";
                long base = size * random.nextInt(8);
                platform =
                        EDITOR.apply(
                                platform,
                                new Edit.Attach(name, port, bus, new Address(base), null));
                if (start < 0) {
                    start = base;
                }
            }
        }
        return EDITOR.apply(
                platform,
                new Edit.SetParameter("cpu", "RESET_VECTOR", new Address(start).toString()));
    }

    /** The platform after the first fix of the first error, again and again; empty when errors remain. */
    private static Optional<Platform> settled(Platform platform) {
        Platform now = platform;
        for (int step = 0; step < 12; step++) {
            List<Finding> errors = errors(now);
            if (errors.isEmpty()) {
                return Optional.of(now);
            }
            Optional<Fix> fix =
                    errors.stream().flatMap(finding -> finding.fixes().stream()).findFirst();
            if (fix.isEmpty()) {
                return Optional.empty();
            }
            now = EDITOR.apply(now, fix.get().edit());
        }
        return Optional.empty();
    }

    private static List<Finding> errors(Platform platform) {
        return Checks.run(Shipped.elaborate(platform)).stream()
                .filter(finding -> finding.grade() == Grade.ERROR)
                .toList();
    }

    private String says(Platform platform) throws IOException {
        ElaboratedPlatform elaborated = Shipped.elaborate(platform);
        for (HandoffFile file : Handoff.of(elaborated).files()) {
            Tool.write(folder, file.path(), file.bytes());
        }
        Tool.run(
                folder, "dtc", "-I", "dts", "-O", "dtb", "-o", "platform.dtb", "test_platform.dts");
        Tool.write(folder, "hello.c", PROGRAM);
        Tool.run(
                folder,
                ("riscv64-unknown-elf-gcc -march=rv32im -misa-spec=2.2 -mabi=ilp32 -mcmodel=medany"
                                + " -Os -std=c11 -Wall -Wextra -Werror -ffreestanding -nostdlib"
                                + " -nostartfiles -Wl,--build-id=none -Wl,--fatal-warnings"
                                + " -T test_platform.ld start.S hello.c -lgcc -o hello.elf")
                        .split(" "));
        ProgramImage image =
                ProgramImage.of(
                        elaborated,
                        ElfReader.read(Files.readAllBytes(folder.resolve("hello.elf"))),
                        (byte) 0);
        assertThat(image.problems()).isEmpty();
        Machine machine = new Machine(elaborated);
        machine.load(image);
        machine.run(machine.clockHz() / 100);
        return new String(machine.console().orElseThrow().takeSent(), StandardCharsets.US_ASCII);
    }
}
