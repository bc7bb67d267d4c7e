package polymetron.cli.measure;

import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.Elaborator;
import polymetron.library.LibraryLoader;
import polymetron.output.image.ElfReader;
import polymetron.output.image.ProgramImage;
import polymetron.platform.Platform;

/**
 * The bench's instruction-set simulator beside QEMU's: the same ELF file, on a platform of ours that has memory and
 * UART where QEMU's {@code virt} machine has them. QEMU's start is measured with a program that ends at once and
 * taken off.
 */
final class SimulatorSpeed implements Measurement {
    private static final long MEMORY = 0x8000_0000L;
    private static final long UART = 0x1000_0000L;
    private static final int TIMES = 3;
    private static final int PROGRAM_ROUNDS = 6_000;
    private static final double LONGEST_SECONDS = 4000;

    private final Path folder;

    SimulatorSpeed(Path folder) {
        this.folder = folder;
    }

    @Override
    public String title() {
        return "Simulator, beside qemu-system-riscv32 with the same program";
    }

    @Override
    public String measure() throws Exception {
        Outside.write(
                folder,
                "speed.ld",
                """
                ENTRY(_start)
                SECTIONS { . = 0x80000000; .text : { *(.start) *(.text*) } . = ALIGN(0x10000); .data : { *(.*data*) *(.bss*) } }
                """);
        Path program =
                Outside.compile(
                        folder, "speed.c", "speed.elf", script("-DROUNDS=" + PROGRAM_ROUNDS));
        Outside.compile(folder, "speed.c", "nothing.elf", script("-DROUNDS=0"));
        ElaboratedPlatform platform = new Elaborator(LibraryLoader.load()).elaborate(platform());
        ProgramImage image =
                ProgramImage.of(platform, ElfReader.read(Files.readAllBytes(program)), (byte) 0);
        Run run = run(platform, image);
        Repeat.Pair reference =
                Repeat.inTurns(
                        1,
                        TIMES,
                        () -> Outside.run(folder, reference("speed.elf")),
                        () -> Outside.run(folder, reference("nothing.elf")));
        double theirs = run.instructions * 1e3 / (reference.one() - reference.other());
        return String.format(
                Locale.ROOT,
                """
                | | million instructions a second |
                |---|---:|
                | Polymetron, from the start of the program | %.0f |
                | Polymetron, second half of the program | %.0f |
                | qemu-system-riscv32, without its own start | %.0f |
                | ratio, from the start | %s |
                | ratio, second half | %s |

                The program: %.0f million instructions of CRC-32, sorting, a sieve, multiplication and division. In the
                first seconds the Java virtual machine still compiles what the bench has translated; the second half
                shows what a session on the bench settles at. Aim of the first slice: a ratio of at least 0.2.
                """,
                run.fromStart(),
                run.secondHalf(),
                theirs,
                Machine.ratio(run.fromStart() / theirs),
                Machine.ratio(run.secondHalf() / theirs),
                run.instructions / 1e6);
    }

    /** Times in nanoseconds since the start, when half of the instructions and when all of them were done. */
    private record Run(long instructions, long halfInstructions, long half, long whole) {
        double fromStart() {
            return instructions * 1e3 / whole;
        }

        double secondHalf() {
            return (instructions - halfInstructions) * 1e3 / (whole - half);
        }
    }

    private static List<String> script(String rounds) {
        return List.of("-T", "speed.ld", rounds);
    }

    private static List<String> reference(String program) {
        return List.of(
                "qemu-system-riscv32",
                "-machine",
                "virt",
                "-bios",
                "none",
                "-kernel",
                program,
                "-nographic",
                "-monitor",
                "none");
    }

    private static Run run(ElaboratedPlatform platform, ProgramImage image) {
        polymetron.bench.machine.Machine machine = new polymetron.bench.machine.Machine(platform);
        machine.load(image);
        List<long[]> marks = new ArrayList<>();
        StringBuilder said = new StringBuilder();
        long start = System.nanoTime();
        while (said.indexOf("done") < 0) {
            if (machine.seconds() > LONGEST_SECONDS) {
                throw new IllegalStateException("the program did not end; it said: " + said);
            }
            machine.run(1_000_000);
            marks.add(new long[] {instructions(machine), System.nanoTime() - start});
            said.append(
                    new String(
                            machine.console().orElseThrow().takeSent(),
                            StandardCharsets.ISO_8859_1));
        }
        long[] half = marks.get(marks.size() / 2);
        long[] whole = marks.getLast();
        return new Run(whole[0], half[0], half[1], whole[1]);
    }

    /** Instructions retired: what the reference counts as well. An instruction takes several cycles. */
    private static long instructions(polymetron.bench.machine.Machine machine) {
        long low = Integer.toUnsignedLong(machine.hart().csrs().read(0xB02));
        return (long) machine.hart().csrs().read(0xB82) << 32 | low;
    }

    private static Platform platform() {
        return Blocks.platform(
                "Speed",
                List.of(
                        Blocks.processor("cpu").withParameter("RESET_VECTOR", "'h8000_0000"),
                        Blocks.memory("memory", MEMORY, 0x10_0000),
                        Blocks.at(Blocks.block("console", "serial:uart"), "registers", UART)));
    }
}
