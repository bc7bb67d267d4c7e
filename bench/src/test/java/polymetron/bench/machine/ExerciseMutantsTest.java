package polymetron.bench.machine;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.library.HardwareBinding;
import polymetron.output.hardware.Hardware;
import polymetron.output.image.ImageFiles;
import polymetron.outside.Tool;

/**
 * Whether exercises would notice: yosys changes the hardware of a block in one place after the other (mutate), and its exercise
 * has to say something else then, or nothing. A few in every run, fifty by hand with -Dpolymetron.mutants=50.
 */
final class ExerciseMutantsTest {
    private static final int COUNT = Integer.getInteger("polymetron.mutants", 4);

    /** Of those that are tried at least this part must be noticed. */
    private static final double NOTICED = 0.7;

    @TempDir private Path folder;

    /** A few, or those that -Dpolymetron.mutants.blocks names. */
    static Stream<String> blocks() {
        String only = System.getProperty("polymetron.mutants.blocks");
        return only == null ? Stream.of("spi-controller", "watchdog") : Stream.of(only.split(","));
    }

    private static ElaboratedPlatform platformWith(String block) {
        return Stream.of(ExercisePlatform.elaborated(), ExercisePlatform.streams())
                .filter(each -> blockOf(each, block).isPresent())
                .findFirst()
                .orElseThrow();
    }

    private static Optional<ElaboratedBlock> blockOf(ElaboratedPlatform platform, String type) {
        return platform.blocks().stream()
                .filter(each -> each.type().identity().name().equals(type))
                .findFirst();
    }

    @ParameterizedTest
    @MethodSource("blocks")
    void mostChangesAreNoticed(String block) throws IOException {
        ElaboratedPlatform platform = platformWith(block);
        Hardware.of(platform)
                .files()
                .forEach(file -> Tool.write(folder, file.path(), file.bytes()));
        var image = ExercisePlatform.program(platform, folder.resolve("program"), block);
        Tool.write(folder, "exercise.hex", ImageFiles.of(image, "exercise").getFirst().bytes());
        String right = said();
        assertThat(right).contains("all well, end.");
        ElaboratedBlock found = blockOf(platform, block).orElseThrow();
        HardwareBinding binding = found.type().hardware();
        Path hdl = folder.resolve("hdl");
        String module = binding.module();
        String original = Files.readString(hdl.resolve(module + ".v"));
        String parameters =
                binding.parameters().entrySet().stream()
                        .map(
                                each ->
                                        " -chparam %s %d"
                                                .formatted(
                                                        each.getKey(),
                                                        found.shape().number(each.getValue(), 0)))
                        .collect(Collectors.joining());
        yosys(
                hdl,
                "read_verilog polymetron_*.v; hierarchy -top %s%s; proc; flatten; opt_clean; rename -top mutated; write_ilang mutated.il; mutate -list %d -seed 1 -o changes.txt"
                        .formatted(module, parameters, COUNT));
        // Written again without a change it says the same: what is noticed later is the change.
        use(hdl, module, original, "");
        assertThat(said()).isEqualTo(right);
        List<String> survivors = new ArrayList<>();
        List<String> changes = Files.readAllLines(hdl.resolve("changes.txt"));
        for (String change : changes) {
            use(hdl, module, original, change + "; ");
            if (said().equals(right)) {
                survivors.add(change);
            }
        }
        Files.writeString(hdl.resolve(module + ".v"), original);
        System.out.printf(
                "mutants of %s: %d of %d noticed%n",
                block, changes.size() - survivors.size(), changes.size());
        survivors.forEach(each -> System.out.println("survives: " + each));
        assertThat(survivors.size()).isLessThanOrEqualTo((int) ((1 - NOTICED) * changes.size()));
    }

    /** Puts the hardware of the block in, with a change. */
    private static void use(Path hdl, String module, String original, String change)
            throws IOException {
        yosys(hdl, "read_ilang mutated.il; " + change + "write_verilog -noattr mutated.v");
        Files.writeString(
                hdl.resolve(module + ".v"),
                wrapped(original) + Files.readString(hdl.resolve("mutated.v")));
    }

    private static void yosys(Path hdl, String commands) {
        Tool.run(hdl, "yosys", "-q", "-p", commands);
    }

    /** A module with the ports and parameters of the original, around the changed one, which has its ports only. */
    private static String wrapped(String original) {
        // The list of ports ends where the first line has nothing but its end.
        String header =
                original.substring(original.indexOf("module "), original.indexOf("\n);") + 3);
        List<String> ports = new ArrayList<>();
        for (String line : header.lines().toList()) {
            String port = line.strip().replaceFirst(",$", "");
            if (port.startsWith("input ") || port.startsWith("output ")) {
                ports.add(port.substring(port.lastIndexOf(' ') + 1));
            }
        }
        return header.replace("output reg ", "output wire")
                + "\nmutated mutated ("
                + ports.stream()
                        .map(each -> ".%1$s(%1$s)".formatted(each))
                        .collect(Collectors.joining(", "))
                + ");\nendmodule\n";
    }

    private String said() {
        return Tool.tryRun(
                        folder,
                        "make -s -C sim run SIM=iverilog IMAGE=exercise.hex UNTIL=end. CYCLES=150000"
                                .split(" "))
                .output()
                .strip();
    }
}
