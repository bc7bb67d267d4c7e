package polymetron.everything;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.stream.LongStream;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import polymetron.Shipped;
import polymetron.bench.machine.Machine;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.OutwardLink;
import polymetron.elaborate.SizedPort;
import polymetron.library.Direction;
import polymetron.output.handoff.Handoff;
import polymetron.output.hardware.DecodeProof;
import polymetron.output.hardware.Hardware;
import polymetron.output.image.ImageFiles;
import polymetron.outside.Solver;
import polymetron.outside.StepByStep;
import polymetron.outside.Tool;
import polymetron.outside.Unknowns;
import polymetron.platform.Platform;

/**
 * Programs that use everything they can see, in the simulation of the generated hardware: platforms of every shape, in several
 * clock domains. What they have to say comes from the document and published standards, as on the bench.
 */
final class SimulatedEverythingTest {
    /** A few in every run; more by hand with -Dpolymetron.simulated. */
    private static final long SEEDS = Long.getLong("polymetron.simulated", 1);

    private static final long FIRST = Long.getLong("polymetron.simulated.first", 1);

    private static final boolean ONLY_LINT = Boolean.getBoolean("polymetron.simulated.lint");

    /** Runs of each program that begin with random values in all that has none after power-up. */
    private static final long RESETS = Long.getLong("polymetron.simulated.resets", 1);

    @TempDir(cleanup = org.junit.jupiter.api.io.CleanupMode.NEVER)
    private Path folder;

    /** Programs that were compared with the bench cycle by cycle. */
    private int compared;

    @Test
    void programsFindWhatTheDocumentSays() throws IOException {
        int programs = 0;
        int platforms = 0;
        List<String> failures = new ArrayList<>();
        for (long seed : LongStream.range(FIRST, FIRST + SEEDS).toArray()) {
            Optional<Platform> platform = RandomPlatform.built(seed);
            if (platform.isEmpty()) {
                continue;
            }
            platforms++;
            try {
                programs += check(seed, platform.get()) ? 1 : 0;
            } catch (AssertionError | RuntimeException failure) {
                failures.add("seed %s: %s".formatted(seed, failure));
            }
        }
        failures.forEach(System.out::println);
        assertThat(failures).isEmpty();
        System.out.printf(
                "simulated: %s programs on %s platforms, %s of them cycle by cycle%n",
                programs, platforms, compared);
        assertThat(ONLY_LINT ? platforms : programs)
                .isGreaterThanOrEqualTo((int) Math.max(1, SEEDS / 3));
    }

    private boolean check(long seed, Platform platform) throws IOException {
        Path here = Files.createDirectories(folder.resolve("p" + seed));
        ElaboratedPlatform elaborated = Shipped.elaborate(platform);
        Hardware hardware = Hardware.of(elaborated);
        assertThat(hardware.notBuilt()).isEmpty();
        Handoff handoff = Handoff.of(elaborated);
        Stream.concat(handoff.files().stream(), hardware.files().stream())
                .forEach(file -> Tool.write(here, file.path(), file.bytes()));
        lint(here, hardware);
        for (DecodeProof proof : DecodeProof.of(elaborated, hardware)) {
            assertThat(Solver.answer(proof, here)).as(proof.bus()).startsWith("unsat");
        }
        DocumentFacts facts = UsingProgram.facts(platform, here);
        if (ONLY_LINT || facts.programs().size() > 1) {
            return false;
        }
        Optional<UsingProgram> built =
                UsingProgram.build(
                        here,
                        facts,
                        elaborated,
                        facts.programs().getFirst(),
                        handoff.baseName(),
                        "start.S",
                        "seed " + seed,
                        seed,
                        true);
        if (built.isEmpty()) {
            return false;
        }
        Tool.write(
                here,
                "program.hex",
                ImageFiles.of(built.get().image(), "program").getFirst().bytes());
        MeasuredReads reads = new MeasuredReads(elaborated);
        String processor = facts.programs().getFirst().harts().getFirst().name();
        StepByStep.watch(here, processor);
        outside(here, elaborated, reads.monitor() + Unknowns.monitor(here, hardware.top()));
        Tool.Outcome said =
                Tool.tryRun(
                        here,
                        "make -s -C sim run SIM=verilator IMAGE=program.hex CYCLES=3000000"
                                .split(" "));
        assertThat(console(said)).isEqualTo(built.get().expected().strip());
        reads.check(here, elaborated);
        boolean isOneClock =
                platform.blocks().stream()
                                .flatMap(block -> block.domains().values().stream())
                                .distinct()
                                .count()
                        == 1;
        // A mover takes the bus away from the processor, which the bench does not count.
        boolean moves =
                platform.blocks().stream()
                        .anyMatch(
                                block ->
                                        List.of("dma", "ring-writer")
                                                .contains(block.type().name()));
        if (isOneClock && !moves && facts.programs().getFirst().harts().size() == 1) {
            sameCycles(here, built.get());
        }
        for (long reset = 1; reset <= RESETS; reset++) {
            Tool.Outcome again =
                    Tool.tryRun(
                            here,
                            "make -s -C sim run SIM=verilator IMAGE=program.hex CYCLES=3000000 SEED=%s"
                                    .formatted(seed + reset)
                                    .split(" "));
            assertThat(console(again)).isEqualTo(built.get().expected().strip());
        }
        Tool.Outcome unknown =
                Tool.tryRun(
                        here,
                        "make -s -C sim run SIM=iverilog IMAGE=program.hex CYCLES=3000".split(" "));
        assertThat(unknown.output()).doesNotContain("unknown");
        return true;
    }

    private static String console(Tool.Outcome said) {
        return said.output().replaceFirst("(?s)\\R- testbench.v.*", "").strip();
    }

    /** Within one clock each instruction ends in the same cycle as on the bench, and leaves the same in its register. */
    private void sameCycles(Path here, UsingProgram program) throws IOException {
        Machine machine = new Machine(program.view());
        machine.load(program.image());
        new World(machine);
        assertThat(StepByStep.difference(here, machine, 0)).isEmpty();
        compared++;
    }

    /** Tools have nothing to say but of nets that are called unused. */
    static void lint(Path here, Hardware hardware) throws IOException {
        Path hdl = here.resolve("hdl");
        List<String> files = Files.readAllLines(hdl.resolve("files.f"));
        assertThat(Tool.run(hdl, Tool.command("iverilog -g2005 -Wall -o lint.vvp", files)))
                .isEmpty();
        String checked =
                Tool.run(
                        hdl,
                        "yosys",
                        "-q",
                        "-p",
                        "read_verilog %s; hierarchy -check -top %s; proc; check -assert"
                                .formatted(String.join(" ", files), hardware.top()));
        assertThat(checked.lines().filter(line -> !line.isBlank())).isEmpty();
        String said =
                Tool.tryRun(
                                hdl,
                                Tool.command(
                                        "verilator --lint-only -Wall --top-module "
                                                + hardware.top(),
                                        files))
                        .output();
        assertThat(
                        said.lines()
                                .filter(line -> line.startsWith("%"))
                                .filter(line -> !line.startsWith("%Error: Exiting due to"))
                                .filter(
                                        line ->
                                                !(line.startsWith("%Warning-UNUSEDSIGNAL")
                                                        && line.contains("'unused_"))))
                .isEmpty();
    }

    /** What the bench has around the platform: levels on the lines, which change when the program asks for an edge. */
    private static void outside(Path here, ElaboratedPlatform platform, String monitor)
            throws IOException {
        Path bench = here.resolve("sim/testbench.v");
        String text = Files.readString(bench);
        StringBuilder more = new StringBuilder(monitor).append(said("\nend\n", "finish(0);"));
        for (OutwardLink link : platform.outward()) {
            if (!link.block().type().identity().name().equals("gpio")) {
                continue;
            }
            SizedPort port = link.form().ports().getFirst();
            String name = link.block().name() + "_" + port.name();
            String range = port.width() == 1 ? "" : "[%s:0] ".formatted(port.width() - 1);
            String levels =
                    "%s'h%x"
                            .formatted(
                                    port.width(),
                                    DeviceExercises.GPIO_OUTSIDE & (1L << port.width()) - 1);
            if (port.direction() == Direction.IN) {
                more.append("initial %s = %s;\n".formatted(name, levels));
                more.append(said(request(link), "%s = ~%s;".formatted(name, levels)));
                more.append(said(request(link), StepByStep.MOVED));
            } else if (port.direction() == Direction.BOTH) {
                text =
                        text.replace(
                                "tri0 %s%s;".formatted(range, name),
                                "wire %s%s;".formatted(range, name));
                more.append("reg %s%s_outside = %s;\n".formatted(range, name, levels));
                more.append(said(request(link), "%s_outside = ~%s;".formatted(name, levels)));
                more.append(said(request(link), StepByStep.MOVED));
                for (int line = 0; line < port.width(); line++) {
                    String bit = port.width() == 1 ? "" : "[%s]".formatted(line);
                    more.append(
                            "assign %s%s = board.%s_drive%s ? 1'bz : %s_outside%s;\n"
                                    .formatted(name, bit, name, bit, name, bit));
                }
            }
        }
        int end = text.lastIndexOf("endmodule");
        Files.writeString(bench, text.substring(0, end) + more + text.substring(end));
    }

    private static String request(OutwardLink link) {
        return "?raise %s.irq\n".formatted(link.block().name());
    }

    private static String said(String words, String then) {
        StringBuilder letters = new StringBuilder();
        words.chars().forEach(each -> letters.append("%02x".formatted(each)));
        return "always @(said) if (said[%s:0] == %s'h%s) %s\n"
                .formatted(8 * words.length() - 1, 8 * words.length(), letters, then);
    }
}
