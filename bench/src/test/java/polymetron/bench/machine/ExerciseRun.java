package polymetron.bench.machine;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.output.HandoffFile;
import polymetron.output.hardware.Hardware;
import polymetron.output.image.ImageFiles;
import polymetron.output.image.ProgramImage;
import polymetron.outside.StepByStep;
import polymetron.outside.Tool;

/** Exercises of one platform: on the bench, in Icarus Verilog and in Verilator. */
final class ExerciseRun {
    /** Something outside that happens at a time. */
    record Moved(int micros, String part, long levels) {
        String line() {
            return "%s @%s %x%n".formatted(micros, part, levels);
        }
    }

    private final ElaboratedPlatform platform;
    private final Path folder;

    /** Board time that an exercise may take, on the bench and, in cycles, in simulation. */
    private static final double LONGEST_SECONDS = 0.03;

    private static final long MOST_CYCLES = 3_000_000;

    /**
     * Longer exercises run in Verilator alone, as Icarus Verilog is forty times slower: both with
     * -Dpolymetron.icarus=3000000.
     */
    private static final long MOST_IN_ICARUS = Long.getLong("polymetron.icarus", 60_000);

    private long cycles;

    ExerciseRun(ElaboratedPlatform platform, Path folder) throws IOException {
        this.platform = platform;
        this.folder = folder;
        Hardware hardware = Hardware.of(platform);
        assertThat(hardware.notBuilt()).isEmpty();
        for (HandoffFile file : hardware.files()) {
            Tool.write(folder, file.path(), file.bytes());
        }
        StepByStep.watch(folder, "cpu");
        for (ElaboratedBlock block : platform.blocks()) {
            BlockPorts.watch(folder, block);
        }
    }

    /** Compares the ports of a block with what was recorded of a program that has run in simulation. */
    void checkPorts(String block, String program) throws IOException {
        BlockPorts.check(folder, block, program);
    }

    /** Name on this platform of the block that the exercise of a type is about. */
    String exercised(String type) {
        return platform.blocks().stream()
                .filter(each -> each.type().identity().name().equals(type))
                .map(ElaboratedBlock::name)
                .filter(each -> each.equals(OF_SEVERAL.getOrDefault(type, each)))
                .findFirst()
                .orElseThrow();
    }

    /** Of several blocks of a type. */
    static final Map<String, String> OF_SEVERAL = Map.of("dma", "mover", "uart", "line");

    boolean has(String block) {
        return platform.blockIndex().get(block) != null;
    }

    ProgramImage program(String block) throws IOException {
        return ExercisePlatform.program(platform, folder.resolve(block), block);
    }

    /** Random use of the registers of a block, by its name on the platform. */
    ProgramImage randomUse(String block, long seed, int accesses) throws IOException {
        return ExercisePlatform.programOf(
                platform,
                folder.resolve("use-" + block),
                RegisterUse.program(
                        platform.blockIndex().get(block),
                        block.toUpperCase(Locale.ROOT) + "_BASE",
                        seed,
                        accesses));
    }

    /** What one block drives at its ports is looked at from now on. */
    void watch(String block) {
        BlockPorts.only(folder, block);
    }

    void watchNothing() {
        BlockPorts.forget(folder);
    }

    /** Puts a program where the simulation finds it, and what happens outside. */
    void use(ProgramImage image, List<Moved> world) {
        Tool.write(folder, "exercise.hex", ImageFiles.of(image, "exercise").getFirst().bytes());
        StringBuilder lines = new StringBuilder();
        world.forEach(each -> lines.append(each.line()));
        Tool.write(folder, "sim/world.txt", lines.toString().getBytes());
    }

    /** The simulators for the program that has run on the bench. */
    List<String> simulators() {
        return cycles <= MOST_IN_ICARUS ? List.of("iverilog", "verilator") : List.of("verilator");
    }

    /** What a simulation says on the console. */
    String simulated(String simulator) {
        return whole(simulator).replaceFirst("(?s)\\R- testbench.v.*", "").strip();
    }

    String whole(String simulator) {
        return Tool.run(
                folder,
                "make -s -C sim run SIM=%s IMAGE=exercise.hex UNTIL=end. INPUT=world.txt CYCLES=%s"
                        .formatted(simulator, MOST_CYCLES)
                        .split(" "));
    }

    /** The same on the bench. */
    String onBench(ProgramImage image, List<Moved> world) {
        Machine machine = new Machine(platform);
        machine.load(image);
        for (Moved each : world) {
            machine.run(each.micros() * (machine.clockHz() / 1_000_000) - machine.cycles());
            machine.move(each.part(), each.levels());
        }
        machine.run(1);
        String said = BuiltProgram.saysUntil(machine, "end.", LONGEST_SECONDS).strip();
        cycles = machine.cycles();
        return said;
    }

    /** Where an instruction ends in another cycle than on the bench; empty where none does. */
    String difference(ProgramImage image) throws IOException {
        Machine machine = new Machine(platform);
        machine.load(image);
        return StepByStep.difference(folder, machine, 0);
    }
}
