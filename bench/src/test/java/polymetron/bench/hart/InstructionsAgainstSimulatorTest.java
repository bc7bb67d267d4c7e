package polymetron.bench.hart;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import polymetron.Shipped;
import polymetron.bench.machine.Machine;
import polymetron.edit.Edit;
import polymetron.edit.Editor;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.output.handoff.Handoff;
import polymetron.output.image.ElfReader;
import polymetron.output.image.ProgramImage;
import polymetron.outside.Tool;

/** Every RV32IM instruction, and the traps of machine mode, against {@code qemu-system-riscv32}. */
final class InstructionsAgainstSimulatorTest {
    private static final String STOP = "*(volatile uint32_t *)0x100000u = 0x5555u";

    @TempDir private Path folder;

    private static final int CHANCES = 40;

    private static String source() throws IOException {
        try (var in =
                InstructionsAgainstSimulatorTest.class.getResourceAsStream(
                        "/polymetron/bench/instructions.c")) {
            return new String(in.readAllBytes(), StandardCharsets.UTF_8);
        }
    }

    @Test
    void resultsAreThoseOfTheReferenceSimulator() throws IOException {
        compare(source(), "");
    }

    /** Loops of random instructions, hot enough to be translated. */
    @Test
    void randomLoopsComputeWhatTheReferenceSimulatorComputes() throws IOException {
        String printing = source().substring(0, source().indexOf("static const uint32_t values"));
        String main =
                """
                int main(void)
                {
                    chances();
                    print("done\\n");
                    STOP;
                    for (;;) {
                    }
                }
                """;
        compare(
                printing + RandomAssembly.calls(CHANCES) + main,
                RandomAssembly.functions(32, CHANCES));
    }

    private void compare(String source, String assembly) throws IOException {
        ElaboratedPlatform platform =
                Shipped.elaborate(
                        new Editor(Shipped.LIBRARY)
                                .apply(
                                        Shipped.recipe("console"),
                                        new Edit.SetParameter("memory", "SIZE", "131072")));
        Handoff.of(platform).files().forEach(file -> Tool.write(folder, file.path(), file.bytes()));
        Tool.write(folder, "instructions.c", source);
        Tool.write(folder, "more.S", assembly);
        build("ours.elf", "test_platform.ld", "-DUART_DISTANCE=4", "-DSTOP=");
        String script = Files.readString(folder.resolve("test_platform.ld"));
        Tool.write(
                folder,
                "reference.ld",
                script.replace("ORIGIN = 0x00000000", "ORIGIN = 0x80000000")
                        .replace("__reset_vector = 0x00000000", "__reset_vector = 0x80000000"));
        build("reference.elf", "reference.ld", "-DUART_DISTANCE=1", "-DSTOP=" + STOP);

        String wanted =
                Tool.run(
                        folder,
                        "qemu-system-riscv32",
                        "-machine",
                        "virt",
                        "-bios",
                        "none",
                        "-kernel",
                        "reference.elf",
                        "-nographic",
                        "-cpu",
                        "rv32,c=off,a=off,f=off,d=off,mmu=off");
        assertThat(wanted).endsWith("done\n");

        byte[] program = Files.readAllBytes(folder.resolve("ours.elf"));
        assertThat(run(platform, program, true)).as("translated").isEqualTo(wanted);
        assertThat(run(platform, program, false)).as("interpreted").isEqualTo(wanted);
    }

    private void build(String out, String script, String... defines) {
        List<String> command =
                new ArrayList<>(
                        List.of(
                                "riscv64-unknown-elf-gcc",
                                "-march=rv32im",
                                "-misa-spec=2.2",
                                "-mabi=ilp32",
                                "-mcmodel=medany",
                                "-O1",
                                "-ffreestanding",
                                "-nostdlib",
                                "-nostartfiles",
                                "-Wall",
                                "-Wextra",
                                "-Werror",
                                "-T",
                                script));
        command.addAll(List.of(defines));
        command.addAll(List.of("start.S", "instructions.c", "more.S", "-lgcc", "-o", out));
        Tool.run(folder, command.toArray(String[]::new));
    }

    private static String run(ElaboratedPlatform platform, byte[] program, boolean translated) {
        Machine machine = new Machine(platform);
        if (!translated) {
            machine.hart().interpretOnly();
        }
        machine.load(ProgramImage.of(platform, ElfReader.read(program), (byte) 0));
        StringBuilder said = new StringBuilder();
        while (said.indexOf("done\n") < 0 && machine.seconds() < 5) {
            machine.run(100_000);
            said.append(
                    new String(
                            machine.console().orElseThrow().takeSent(),
                            StandardCharsets.ISO_8859_1));
        }
        return said.toString();
    }
}
