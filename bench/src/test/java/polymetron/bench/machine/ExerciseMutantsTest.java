package polymetron.bench.machine;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Supplier;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import polymetron.bench.behaviour.BehaviourRig;
import polymetron.bench.behaviour.Behaviours;
import polymetron.bench.machine.ExerciseRun.Moved;
import polymetron.bench.mutant.EvidenceFile;
import polymetron.bench.mutant.Judgement;
import polymetron.bench.mutant.MeasuredSize;
import polymetron.bench.mutant.Mutants;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.library.Evidence;
import polymetron.output.image.ImageFiles;
import polymetron.output.image.ProgramImage;
import polymetron.outside.Tool;

/**
 * Whether the tests of a block would notice hardware that is wrong: its exercise, and where bench and hardware answer alike
 * ({@link RegisterUseTest}) random use of its registers; of some its module by itself ({@link Behaviours}). Twenty changes of two blocks in every run; others by hand with
 * -Dpolymetron.mutants=50 -Dpolymetron.mutants.blocks=NAME,NAME, and -Dpolymetron.evidence=write to keep what came out for the
 * library's pages.
 */
final class ExerciseMutantsTest {
    private static final int COUNT = Integer.getInteger("polymetron.mutants", 20);
    private static final int SEED = 1;
    private static final long MOST_CYCLES = 3_000_000;
    private static final int ALONE_CYCLES =
            Integer.getInteger("polymetron.mutants.cycles", 250_000);

    /** Of those that make a difference at least this part must be noticed. */
    private static final double NOTICED =
            Double.parseDouble(System.getProperty("polymetron.mutants.noticed", "0.9"));

    private static final Pattern ENDED = Pattern.compile("ended in (\\d+)");
    private static final Pattern GIVEN = Pattern.compile("\\.(\\w+)\\((?:\\d+'d)?(\\d+)\\)");

    /** Blocks of which each instruction of the exercise ends in the same cycle as on the bench, with the same value. */
    private static final Set<String> EXACT =
            Set.of(
                    "spi-controller",
                    "i2c-controller",
                    "uart",
                    "general-timer",
                    "machine-timer",
                    "gpio",
                    "converter-reader",
                    "signal-probe");

    /** Blocks whose registers are used at random besides. */
    private static final Set<String> USED =
            Set.of(
                    "spi-controller",
                    "i2c-controller",
                    "uart",
                    "general-timer",
                    "machine-timer",
                    "gpio",
                    "pwm",
                    "converter-reader",
                    "signal-probe",
                    "analog-monitor");

    @TempDir private Path folder;

    /** The block that is changed. */
    private String changed;

    /**
     * @param most cycles that it is given: twice what it needs without a change
     */
    private record Program(String name, List<Moved> world, boolean exact, String said, long most) {}

    /** One, or those that -Dpolymetron.mutants.blocks names. */
    static Stream<String> blocks() {
        String only = System.getProperty("polymetron.mutants.blocks");
        return only == null ? Stream.of("watchdog") : Stream.of(only.split(","));
    }

    private static ElaboratedPlatform platformWith(String block) {
        return Stream.<Supplier<ElaboratedPlatform>>of(
                        ExercisePlatform::elaborated,
                        ExercisePlatform::streams,
                        ExercisePlatform::buses)
                .map(Supplier::get)
                .filter(each -> blockOf(each, block).isPresent())
                .findFirst()
                .orElseThrow();
    }

    private static Optional<ElaboratedBlock> blockOf(ElaboratedPlatform platform, String type) {
        return platform.blocks().stream()
                .filter(each -> each.type().identity().name().equals(type))
                .filter(
                        each ->
                                each.name()
                                        .equals(
                                                ExerciseRun.OF_SEVERAL.getOrDefault(
                                                        type, each.name())))
                .findFirst();
    }

    @ParameterizedTest
    @MethodSource("blocks")
    void mostChangesAreNoticed(String block) throws IOException {
        ElaboratedPlatform platform = platformWith(block);
        ExerciseRun run = new ExerciseRun(platform, folder);
        ElaboratedBlock found = blockOf(platform, block).orElseThrow();
        String module = found.type().hardware().module();
        Path hdl = folder.resolve("hdl");
        Evidence.Size size = MeasuredSize.of(platform, found, hdl);
        Map<String, Long> parameters = parameters(hdl, module, found);
        Mutants mutants = Mutants.put(hdl, module, parameters, COUNT, SEED);
        changed = found.name();
        run.watch(changed);
        watch(found.name());
        List<Moved> world = OutsideOfExercises.of(block);
        run.use(run.program(block), world);
        // Builds the simulation.
        assertThat(run.whole("verilator")).contains("all well, end.");
        Program exercise = program("exercise", run.program(block), world, EXACT.contains(block));
        List<Program> programs =
                Stream.concat(
                                Stream.of(exercise),
                                USED.contains(block) ? uses(run, found.name()) : Stream.empty())
                        .toList();
        Optional<BehaviourRig> alone = alone(hdl, platform, found, parameters);
        Judgement judgement =
                Judgement.of(
                        mutants,
                        number ->
                                alone.filter(rig -> !rig.wrong(number).isEmpty()).isPresent()
                                        || programs.stream()
                                                .anyMatch(
                                                        each ->
                                                                !said(number, each)
                                                                        .equals(each.said())));
        System.out.println(judgement.text(block));
        assertThat(judgement.part()).isGreaterThanOrEqualTo(NOTICED);
        EvidenceFile.write(found.type(), judgement, tests(block, alone.isPresent()), size);
    }

    /** The module by itself, beside what it has to do in each cycle. */
    private static Optional<BehaviourRig> alone(
            Path hdl,
            ElaboratedPlatform platform,
            ElaboratedBlock block,
            Map<String, Long> parameters) {
        Optional<BehaviourRig> rig =
                Behaviours.of(platform, block, parameters)
                        .map(
                                behaviour ->
                                        BehaviourRig.of(
                                                hdl,
                                                parameters,
                                                behaviour,
                                                "with_changes.mutated.",
                                                ALONE_CYCLES,
                                                SEED));
        rig.ifPresent(each -> assertThat(each.wrong(0)).isEmpty());
        return rig;
    }

    private List<String> tests(String block, boolean isAlone) {
        List<String> tests = new ArrayList<>(List.of("the exercise"));
        if (isAlone) {
            tests.add("random use of the module by itself, cycle by cycle");
        }
        if (USED.contains(block)) {
            tests.add("random use of its registers");
        }
        if (!BlockPorts.said(folder, changed).isEmpty()) {
            tests.add("what was recorded at its ports");
        }
        return tests;
    }

    private Stream<Program> uses(ExerciseRun run, String name) {
        return Stream.iterate(1, seed -> seed <= RegisterUseTest.RECORDED, seed -> seed + 1)
                .map(
                        seed -> {
                            try {
                                return program(
                                        "use" + seed,
                                        run.randomUse(name, seed, RegisterUseTest.ACCESSES),
                                        List.of(),
                                        true);
                            } catch (IOException failure) {
                                throw new UncheckedIOException(failure);
                            }
                        });
    }

    private Program program(String name, ProgramImage image, List<Moved> world, boolean exact) {
        Tool.write(folder, name + ".hex", ImageFiles.of(image, name).getFirst().bytes());
        Program unknown = new Program(name, world, exact, "", MOST_CYCLES);
        Matcher ended = ENDED.matcher(output(0, unknown));
        assertThat(ended.find()).isTrue();
        Program known =
                new Program(
                        name, world, exact, said(0, unknown), 2 * Long.parseLong(ended.group(1)));
        // Without a change it says that all is well: what is noticed later is the change.
        assertThat(said(0, known)).isEqualTo(known.said()).contains("all well, end.");
        return known;
    }

    /** The parameters that the module has on this platform. */
    private static Map<String, Long> parameters(Path hdl, String module, ElaboratedBlock block)
            throws IOException {
        Map<String, Long> parameters = new LinkedHashMap<>();
        try (Stream<Path> files = Files.list(hdl)) {
            for (Path file : files.filter(each -> isOf(each, block.name())).toList()) {
                String text = Files.readString(file);
                int at = text.indexOf("    %s #(".formatted(module));
                if (at >= 0) {
                    Matcher given =
                            GIVEN.matcher(text.substring(at, text.indexOf(" behaviour", at)));
                    while (given.find()) {
                        parameters.put(given.group(1), Long.parseLong(given.group(2)));
                    }
                }
            }
        }
        return parameters;
    }

    private static boolean isOf(Path file, String block) {
        return file.getFileName().toString().endsWith("_" + block + ".v");
    }

    /** The test bench finds what it looks into where the changes are, and says when it ends. */
    private void watch(String block) throws IOException {
        Path bench = folder.resolve("sim/testbench.v");
        String inside = "board.%s.behaviour.".formatted(BlockPorts.instance(folder, block));
        Files.writeString(
                bench,
                Files.readString(bench)
                        .replace(inside, inside + "with_changes.mutated.")
                        .replaceFirst(
                                "(?s)endmodule(?!.*endmodule)",
                                Matcher.quoteReplacement(
                                        "final $display(\"ended in %0d\", cycles);\nendmodule")));
    }

    private String output(int mutant, Program program) {
        StringBuilder lines = new StringBuilder();
        program.world().forEach(each -> lines.append(each.line()));
        Tool.write(folder, "sim/world.txt", lines.toString().getBytes());
        return Tool.tryRun(
                        folder.resolve("sim"),
                        "build/verilator +IMAGE=../%s.hex +UNTIL=end. +INPUT=world.txt +CYCLES=%s +MUTANT=%s"
                                .formatted(program.name(), program.most(), mutant)
                                .split(" "))
                .output();
    }

    /** What a program says while a change is on, and what its instructions do where that is compared as well. */
    private String said(int mutant, Program program) {
        String output = output(mutant, program);
        int end = output.indexOf("- testbench.v");
        String words =
                ENDED.matcher(end < 0 ? output : output.substring(0, end)).replaceAll("").strip();
        try {
            return program.exact()
                    ? words
                            + Files.readString(folder.resolve("sim/steps.txt")).hashCode()
                            + BlockPorts.said(folder, changed)
                    : words + BlockPorts.said(folder, changed);
        } catch (IOException failure) {
            throw new UncheckedIOException(failure);
        }
    }
}
