package polymetron.cli;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.PrintWriter;
import java.io.StringWriter;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import polymetron.Shipped;
import polymetron.edit.Editor;
import polymetron.outside.Tool;
import polymetron.platform.PlatformDocument;

/** Programs of the command line: in every format, for either processor, with prompts, and in traps. */
final class RunCommandTest {
    @TempDir private Path folder;
    private final StringWriter out = new StringWriter();
    private final StringWriter err = new StringWriter();
    private String platform;

    @BeforeEach
    void demo() {
        platform = Tool.write(folder, "p.json", Shipped.file("demo/ridge-station.json")).toString();
    }

    private int polymetron(String... arguments) {
        out.getBuffer().setLength(0);
        err.getBuffer().setLength(0);
        return CommandLineApplication.execute(
                new PrintWriter(out, true), new PrintWriter(err, true), arguments);
    }

    /** A program of the demo, linked with its hand-off. */
    private String program(String name, String body) {
        return program(name, body, "ridge_station", "start.S");
    }

    private String program(String name, String body, String stem, String start) {
        assertThat(polymetron("export", platform, "--out", folder.toString())).isZero();
        Tool.write(
                folder,
                name + ".c",
                """
                #include "%s.h"
                #include "drivers/uart.h"
                static void print(const char *text)
                {
                    while (*text)
                        uart_send(PLATFORM_CONSOLE_BASE, *text++);
                }
                """
                                .formatted(stem)
                        + body);
        String elf = folder.resolve(name + ".elf").toString();
        Tool.run(
                folder,
                ("riscv64-unknown-elf-gcc -march=rv32im -mabi=ilp32 -misa-spec=2.2 -mcmodel=medany"
                     + " -O1 -ffreestanding -nostdlib -nostartfiles -Wl,--fatal-warnings -T %s.ld"
                     + " %s %s.c -o %s")
                        .formatted(stem, start, name, elf)
                        .split(" "));
        return elf;
    }

    private static final String HELLO =
            "int main(void)\n{\n    print(\"hello\\n\");\n    for (;;) {\n    }\n}\n";

    @Test
    void aTrapThatNothingHandlesEndsTheRunWithWhereItWas() {
        String elf =
                program(
                        "trap",
                        """
                        __attribute__((noinline)) void jump(void (*to)(void))
                        {
                            to();
                            print("back");
                        }
                        int main(void)
                        {
                            print("going\\n");
                            jump((void (*)(void))0x70000000u);
                            return 0;
                        }
                        """);
        assertThat(polymetron("run", platform, "--elf", elf, "--until", "back")).isEqualTo(1);
        assertThat(out.toString()).isEqualTo("going\n");
        assertThat(err.toString())
                .contains(
                        "cpu stays in a trap: bus fault on an instruction (cause 1) at 0x7000_0000,"
                                + " value 0x7000_0000");
        String store =
                program(
                        "store",
                        """
                        __attribute__((noinline)) void spoil(volatile int *at)
                        {
                            *at = 1;
                        }
                        int main(void)
                        {
                            spoil((volatile int *)0x60000004u);
                            return 0;
                        }
                        """);
        assertThat(polymetron("run", platform, "--program", store)).isEqualTo(1);
        assertThat(err.toString())
                .containsPattern(
                        "bus fault on a store \\(cause 7\\) at 0x0000_0\\w+ \\(spoil\\+0x\\w+\\),"
                                + " value 0x6000_0004");
    }

    @Test
    void whatIsTypedWaitsForItsPrompt() {
        String elf =
                program(
                        "ask",
                        """
                        static char answer(const char *prompt)
                        {
                            /* What came before the prompt is thrown away. */
                            while (uart_has_received(PLATFORM_CONSOLE_BASE))
                                (void)uart_receive(PLATFORM_CONSOLE_BASE);
                            print(prompt);
                            while (!uart_has_received(PLATFORM_CONSOLE_BASE)) {
                            }
                            return uart_receive(PLATFORM_CONSOLE_BASE);
                        }
                        int main(void)
                        {
                            for (volatile int wait = 0; wait < 100000; wait++) {
                            }
                            char first = answer("first? ");
                            char second = answer("second? ");
                            char both[] = {first, second, '!', 0};
                            print(both);
                            for (;;) {
                            }
                        }
                        """);
        String[] run = {"run", platform, "--program", elf, "--until", "ab!"};
        List<String> waiting = new ArrayList<>(List.of(run));
        waiting.addAll(
                List.of("--after", "first? ", "--type", "a", "--after", "second? ", "--type", "b"));
        assertThat(polymetron(waiting.toArray(String[]::new))).as(err.toString()).isZero();
        List<String> never = new ArrayList<>(List.of(run).subList(0, 4));
        never.addAll(List.of("--after", "third? ", "--type", "c", "--seconds", "0.2"));
        assertThat(polymetron(never.toArray(String[]::new))).isEqualTo(1);
        assertThat(err.toString())
                .contains("the console did not say 'third? ' within 0.2 s, so 'c' was not typed");
    }

    @Test
    void aProgramMayBeElfHexRecordsOrPlainBytes() {
        String elf = program("hello", HELLO);
        for (String format : List.of("ihex", "srec", "binary")) {
            String file = folder.resolve("hello." + format).toString();
            Tool.run(folder, "riscv64-unknown-elf-objcopy", "-O", format, elf, file);
            List<String> run =
                    new ArrayList<>(
                            List.of("run", platform, "--program", file, "--until", "hello"));
            if (format.equals("binary")) {
                run.addAll(List.of("--at", "0x0000_0000"));
            }
            assertThat(polymetron(run.toArray(String[]::new))).as("%s: %s", format, err).isZero();
        }
        Tool.write(folder, "bad.hex", ":10000000971100009381812317410000130181FF00\n:00000001FF\n");
        String bad = folder.resolve("bad.hex").toString();
        assertThat(polymetron("run", platform, "--program", bad)).isEqualTo(2);
        assertThat(err.toString())
                .contains("bad.hex: line 1: the checksum is 00, and that of its bytes is A4");
        assertThat(polymetron("run", platform, "--program", elf, "--at", "somewhere")).isEqualTo(2);
        assertThat(err.toString()).contains("--at: ");
    }

    @Test
    void eachProcessorRunsItsOwnProgramAndItIsSaidWhich() {
        Editor editor = new Editor(Shipped.LIBRARY);
        platform =
                Tool.write(
                                folder,
                                "two.json",
                                PlatformDocument.write(
                                        editor.apply(
                                                Shipped.demo(), Shipped.secondProcessor("0x2000"))))
                        .toString();
        String second =
                program(
                        "second",
                        HELLO.replace("hello", "hello from the second"),
                        "ridge_station_cpu2",
                        "start_cpu2.S");
        assertThat(
                        polymetron(
                                "run",
                                platform,
                                "--program",
                                second,
                                "--processor",
                                "cpu2",
                                "--until",
                                "from the second"))
                .as(err.toString())
                .isZero();
        assertThat(err.toString()).contains("for cpu2; not for cpu, which --processor chooses");
        // Both at once, on the console that they share.
        String first = program("first", HELLO, "ridge_station_cpu", "start_cpu.S");
        assertThat(
                        polymetron(
                                "run",
                                platform,
                                "--program",
                                first,
                                "--processor",
                                "cpu",
                                "--beside",
                                "cpu2=" + second,
                                "--seconds",
                                "0.5"))
                .as(err.toString())
                .isZero();
        // Neither waits for the other, so letters mix.
        assertThat(out.toString()).startsWith("hh").contains("from the second");
        assertThat(polymetron("run", platform, "--program", first, "--beside", "gpu=" + second))
                .isEqualTo(2);
        assertThat(err.toString()).contains("--beside: there is no processor gpu");
        // The program begins where cpu2 does, so it is for cpu2 without being told.
        assertThat(polymetron("run", platform, "--program", second, "--until", "second")).isZero();
        assertThat(polymetron("run", platform, "--program", second, "--processor", "cpu"))
                .isEqualTo(2);
        assertThat(err.toString()).contains("begins at 0x0000_2000, but cpu starts at 0x0000_0000");
        assertThat(polymetron("run", platform, "--program", second, "--processor", "gpu"))
                .isEqualTo(2);
        assertThat(err.toString()).contains("there is no processor gpu").contains("cpu, cpu2");
    }

    @Test
    void aFolderWithAnotherPlatformsHandOffIsTold() {
        String to = folder.resolve("both").toString();
        assertThat(polymetron("export", platform, "--out", to)).isZero();
        assertThat(err.toString()).isEmpty();
        String other =
                Tool.write(
                                folder,
                                "other.json",
                                Shipped.demoText().replace("Ridge Station", "Valley Station"))
                        .toString();
        assertThat(polymetron("export", other, "--out", to)).isZero();
        assertThat(err.toString())
                .contains(
                        "also has the hand-off of ridge_station: drivers and start-up code are now"
                                + " those of valley_station");
    }

    /** Whatever is given, what is answered is meant for a person. */
    @Test
    void nothingIsAnsweredWithNamesOfTheSource() {
        String elf = program("hello", HELLO);
        List<List<String>> all =
                List.of(
                        List.of("run", platform),
                        List.of("run", platform, "--program", folder.toString()),
                        List.of("run", folder.toString(), "--program", elf),
                        List.of("run", platform, "--program", elf, "--seconds", "many"),
                        List.of("run", platform, "--program", elf, "--type"),
                        List.of("run", platform, "--program", elf, "--after", "x"),
                        List.of("image", platform, "--program", elf, "--out", elf),
                        List.of(
                                "image",
                                platform,
                                "--program",
                                elf,
                                "--fill",
                                "x",
                                "--out",
                                folder.resolve("y").toString()),
                        List.of("export", platform, "--out", elf),
                        List.of("export", platform, "--out", "/proc/nowhere"),
                        List.of("check", elf),
                        List.of("check", "/dev/null"),
                        List.of("new"),
                        List.of("new", "", "--board", "foreland"),
                        List.of("new", "A\nB", "--board", "foreland"),
                        List.of("new", "A", "--board", "nowhere"),
                        List.of("fly"));
        for (List<String> arguments : all) {
            assertThat(polymetron(arguments.toArray(String[]::new)))
                    .as("%s", arguments)
                    .isEqualTo(2);
            assertThat(err.toString())
                    .as("%s", arguments)
                    .doesNotContainPattern("\\b(java|javax|polymetron|picocli|tools)\\.[a-z]+")
                    .doesNotContain("Exception");
        }
    }

    @Test
    void saysWhatIsReadBeforeItWasWritten() {
        String careless =
                program(
                        "careless",
                        """
                        __attribute__((noinline)) uint32_t sum(const volatile uint32_t *list) { return list[0] + list[1]; }
                        int main(void)
                        {
                            print(sum((const volatile uint32_t *)0x3000u) == 0u ? "done" : "odd");
                            for (;;) {
                            }
                        }
                        """);
        assertThat(
                        polymetron(
                                "run",
                                platform,
                                "--program",
                                careless,
                                "--until",
                                "done",
                                "--check-memory"))
                .isEqualTo(1);
        assertThat(out.toString()).contains("done");
        assertThat(err.toString())
                .contains("polymetron: cpu in sum reads 0x0000_3000, which was never written");
        assertThat(polymetron("run", platform, "--program", careless, "--until", "done")).isZero();
    }
}
