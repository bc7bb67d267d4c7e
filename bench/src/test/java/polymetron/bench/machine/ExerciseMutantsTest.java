package polymetron.bench.machine;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.library.HardwareBinding;
import polymetron.outside.Tool;

/**
 * Whether exercises would notice: yosys changes the hardware of a block in one place after the other (mutate), and its exercise
 * has to say something else then, or nothing. All changes are built into one simulation, each behind the number that turns it
 * on. Twenty of two blocks in every run; others by hand with -Dpolymetron.mutants=50 -Dpolymetron.mutants.blocks=NAME,NAME.
 */
final class ExerciseMutantsTest {
    private static final int COUNT = Integer.getInteger("polymetron.mutants", 20);

    /** Of those that are tried at least this part must be noticed. */
    private static final double NOTICED =
            Double.parseDouble(System.getProperty("polymetron.mutants.noticed", "0.7"));

    private static final Set<String> ELEMENTS =
            Set.of("fifo", "splitter", "width-adapter", "clock-crossing");

    private static final Pattern ENDED = Pattern.compile("ended in (\\d+)");

    @TempDir private Path folder;

    /** A few, or those that -Dpolymetron.mutants.blocks names. */
    static Stream<String> blocks() {
        String only = System.getProperty("polymetron.mutants.blocks");
        return only == null ? Stream.of("spi-controller", "watchdog") : Stream.of(only.split(","));
    }

    private static ElaboratedPlatform platformWith(String block) {
        return Stream.of(
                        ExercisePlatform.elaborated(),
                        ExercisePlatform.streams(),
                        ExercisePlatform.buses())
                .filter(each -> blockOf(each, block).isPresent())
                .findFirst()
                .orElseThrow();
    }

    /** The block that the exercise of a type is about, of several; a changed console would say nothing. */
    private static final Map<String, String> OF_SEVERAL = Map.of("dma", "mover", "uart", "line");

    private static Optional<ElaboratedBlock> blockOf(ElaboratedPlatform platform, String type) {
        return platform.blocks().stream()
                .filter(each -> each.type().identity().name().equals(type))
                .filter(each -> each.name().equals(OF_SEVERAL.getOrDefault(type, each.name())))
                .findFirst();
    }

    @ParameterizedTest
    @MethodSource("blocks")
    void mostChangesAreNoticed(String block) throws IOException {
        ElaboratedPlatform platform = platformWith(block);
        ExerciseRun run = new ExerciseRun(platform, folder);
        // Elements of streams have no program of their own: packets of the DMA go through all of
        // them.
        String exercise = ELEMENTS.contains(block) ? "dma" : block;
        run.use(run.program(exercise), OutsideOfExercises.of(exercise));
        ElaboratedBlock found = blockOf(platform, block).orElseThrow();
        Path hdl = folder.resolve("hdl");
        List<String> changes = changes(hdl, found);
        Path bench = folder.resolve("sim/testbench.v");
        String text = Files.readString(bench);
        String inside = "board.%s.behaviour.".formatted(found.name());
        Files.writeString(
                bench,
                text.replace(inside, inside + "with_changes.mutated.")
                        .replaceFirst(
                                "(?s)endmodule(?!.*endmodule)",
                                "final \\$display(\"ended in %0d\", cycles);\nendmodule"));
        // Without a change it says that all is well: what is noticed later is the change.
        String right = run.whole("verilator");
        assertThat(right).contains("all well, end.");
        Matcher ended = ENDED.matcher(right);
        assertThat(ended.find()).isTrue();
        long most = 2 * Long.parseLong(ended.group(1));
        assertThat(said(0, most)).isEqualTo(said(right));
        List<String> survivors = new ArrayList<>();
        for (int at = 0; at < changes.size(); at++) {
            if (said(at + 1, most).equals(said(right))) {
                survivors.add(changes.get(at));
            }
        }
        System.out.printf(
                "mutants of %s: %d of %d noticed%n",
                block, changes.size() - survivors.size(), changes.size());
        survivors.forEach(each -> System.out.println("survives: " + each));
        assertThat(survivors.size()).isLessThanOrEqualTo((int) ((1 - NOTICED) * changes.size()));
    }

    /** Puts all changes into the hardware of the block, and lists them; number 0 is none of them. */
    private List<String> changes(Path hdl, ElaboratedBlock block) throws IOException {
        HardwareBinding binding = block.type().hardware();
        Map<String, Long> parameters = new LinkedHashMap<>();
        binding.parameters()
                .forEach((name, value) -> parameters.put(name, block.shape().number(value, 0)));
        String set =
                parameters.entrySet().stream()
                        .map(each -> " -chparam %s %d".formatted(each.getKey(), each.getValue()))
                        .collect(Collectors.joining());
        yosys(
                hdl,
                "read_verilog polymetron_*.v; hierarchy -top %s%s; proc; setattr -mod -set keep_hierarchy 1 polymetron_converter; flatten; opt_clean; rename -top mutated; write_ilang mutated.il; mutate -list %d -seed 1 -o changes.txt"
                        .formatted(binding.module(), set, COUNT));
        List<String> changes = Files.readAllLines(hdl.resolve("changes.txt"));
        StringBuilder script = new StringBuilder("read_ilang mutated.il\n");
        for (int at = 0; at < changes.size(); at++) {
            script.append(
                    changes.get(at)
                            .replaceFirst(
                                    "mutate ", "mutate -ctrl mutant 16 %d ".formatted(at + 1)));
            script.append('\n');
        }
        Files.writeString(
                hdl.resolve("mutate.ys"),
                script + "clean\nselect mutated\nwrite_verilog -noattr -selected mutated.v\n");
        Tool.run(hdl, "yosys", "-q", "-s", "mutate.ys");
        Path file = hdl.resolve(binding.module() + ".v");
        String original = Files.readString(file);
        Files.writeString(
                file,
                wrapped(original, binding.module(), parameters)
                        + original.replaceFirst(
                                "module " + binding.module(), "module original_of_mutated")
                        + Files.readString(hdl.resolve("mutated.v")));
        return changes;
    }

    private static void yosys(Path hdl, String commands) {
        Tool.run(hdl, "yosys", "-q", "-p", commands);
    }

    /**
     * A module with the ports and parameters of the original, with the changed one inside where the parameters are those that it
     * was made for, and the original elsewhere.
     */
    private static String wrapped(String original, String module, Map<String, Long> parameters) {
        // The list of ports ends where the first line has nothing but its end.
        String header =
                original.substring(
                        original.indexOf("module " + module), original.indexOf("\n);") + 3);
        List<String> ports = new ArrayList<>();
        for (String line : header.lines().toList()) {
            String port = line.strip().replaceFirst(",$", "");
            if (port.startsWith("input ") || port.startsWith("output ")) {
                ports.add(port.substring(port.lastIndexOf(' ') + 1));
            }
        }
        String connected =
                ports.stream()
                        .map(each -> ".%1$s(%1$s)".formatted(each))
                        .collect(Collectors.joining(", "));
        String given =
                parameters.keySet().stream()
                        .map(each -> ".%1$s(%1$s)".formatted(each))
                        .collect(Collectors.joining(", "));
        String same =
                parameters.entrySet().stream()
                        .map(each -> each.getKey() + " == " + each.getValue())
                        .collect(Collectors.joining(" && "));
        return """
        %s
        reg [15:0] mutant = 16'd0;
        initial if ($value$plusargs("MUTANT=%%d", mutant)) ;
        generate
        if (%s) begin : with_changes
            mutated mutated (.mutant(mutant), %s);
        end
        else begin : without
            original_of_mutated #(%s) original (%s);
        end
        endgenerate
        endmodule
        """
                .formatted(
                        header.replace("output reg ", "output wire "),
                        same.isEmpty() ? "1" : same,
                        connected,
                        given,
                        connected);
    }

    /** What the program says while a change is on, given twice the time that it needs without. */
    private String said(int mutant, long cycles) {
        return said(
                Tool.tryRun(
                                folder.resolve("sim"),
                                "build/verilator +IMAGE=../exercise.hex +UNTIL=end. +INPUT=world.txt +CYCLES=%s +MUTANT=%s"
                                        .formatted(cycles, mutant)
                                        .split(" "))
                        .output());
    }

    /** Without what the simulator says of itself. */
    private static String said(String output) {
        int end = output.indexOf("- testbench.v");
        return ENDED.matcher(end < 0 ? output : output.substring(0, end)).replaceAll("").strip();
    }
}
