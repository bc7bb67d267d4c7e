package polymetron.bench.machine;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.TestInstance;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import polymetron.Shipped;
import polymetron.bus.Protocol;
import polymetron.edit.Edit;
import polymetron.edit.Editor;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.library.BlockType;
import polymetron.library.Vlnv;
import polymetron.output.HandoffFile;
import polymetron.output.hardware.Hardware;
import polymetron.output.image.ImageFiles;
import polymetron.output.image.ProgramImage;
import polymetron.outside.StepByStep;
import polymetron.outside.Tool;
import polymetron.platform.Bus;
import polymetron.platform.ClockDomain;
import polymetron.platform.Platform;
import polymetron.wiring.WiringPlan;

/**
 * The exercise of each block: a program that does with it what it is for, on one platform with all of them. It says the same on
 * the bench, in Icarus Verilog and in Verilator, and each of its instructions ends in the same cycle.
 */
@TestInstance(TestInstance.Lifecycle.PER_CLASS)
final class ExerciseTest {
    private static final Editor EDITOR = new Editor(Shipped.LIBRARY);

    private Path folder;

    private ElaboratedPlatform platform;

    private static Platform wired() {
        Platform platform =
                Platform.empty("Exercises", Vlnv.parse("polymetron:boards:terrace:1.0"));
        Map<String, Edit.AddBlock> blocks = new LinkedHashMap<>();
        add(blocks, "cpu", "processor:rv32-small:1.1", Map.of("MULTIPLIER", "iterative"));
        add(blocks, "code", "memory:block-memory:1.1", Map.of("SIZE", "65536"));
        add(blocks, "console", "serial:uart:1.0", Map.of());
        add(blocks, "interrupts", "interrupt:interrupt-controller:1.1", Map.of("SOURCES", "31"));
        add(blocks, "timer", "timer:machine-timer:1.0", Map.of());
        add(
                blocks,
                "spi",
                "serial:spi-controller:1.0",
                Map.of("WORD", "24", "SELECTS", "2", "FIFO", "5"));
        add(blocks, "watchdog", "timer:watchdog:1.0", Map.of());
        add(blocks, "pwm", "timer:pwm:1.0", Map.of("CHANNELS", "4", "WIDTH", "10"));
        platform = EDITOR.apply(platform, new Edit.Several(null, List.copyOf(blocks.values())));
        // The watchdog resets all but itself.
        List<Edit> edits = new ArrayList<>();
        edits.add(new Edit.AddDomain(new ClockDomain("guard", "oscillator", "reset_button")));
        edits.add(new Edit.SetDomain("watchdog", "clk", "guard"));
        edits.add(new Edit.SetDomain("watchdog", "rst", "guard"));
        edits.add(new Edit.AddDomain(new ClockDomain("main", "oscillator", "watchdog.expired")));
        for (String each : blocks.keySet()) {
            if (!each.equals("watchdog")) {
                BlockType type =
                        Shipped.LIBRARY
                                .type(platform.block(each).orElseThrow().type())
                                .orElseThrow();
                type.clocks()
                        .forEach(port -> edits.add(new Edit.SetDomain(each, port.name(), "main")));
                type.resets()
                        .forEach(port -> edits.add(new Edit.SetDomain(each, port.name(), "main")));
            }
        }
        edits.add(new Edit.AddBus(new Bus("system", Protocol.AXI4_LITE, 32, 32, "main")));
        platform = EDITOR.apply(platform, new Edit.Several(null, edits));
        platform = EDITOR.apply(platform, new Edit.BindPart("spi", "port", "converter"));
        platform =
                EDITOR.apply(
                        platform,
                        WiringPlan.propose(platform, Shipped.LIBRARY, WiringPlan.Decisions.NONE)
                                .asEdit("wire"));
        // The board's line would be slow to simulate.
        return EDITOR.apply(platform, new Edit.SetParameter("console", "BAUD", "3125000"));
    }

    private static void add(
            Map<String, Edit.AddBlock> blocks,
            String name,
            String type,
            Map<String, String> parameters) {
        blocks.put(name, new Edit.AddBlock(name, Vlnv.parse("polymetron:" + type), parameters));
    }

    @BeforeAll
    void build(@TempDir Path made) throws IOException {
        folder = made;
        platform = Shipped.elaborate(wired());
        Hardware hardware = Hardware.of(platform);
        assertThat(hardware.notBuilt()).isEmpty();
        for (HandoffFile file : hardware.files()) {
            Tool.write(folder, file.path(), file.bytes());
        }
        StepByStep.watch(folder, "cpu");
    }

    @ParameterizedTest
    @ValueSource(strings = {"spi-controller", "watchdog"})
    void saysTheSameEverywhere(String block) throws IOException {
        String text =
                new String(
                        Shipped.file("block-types/" + block + "/exercise/exercise.c"),
                        StandardCharsets.UTF_8);
        String common =
                new String(
                        ExerciseTest.class
                                .getResourceAsStream("/polymetron/exercise.c")
                                .readAllBytes(),
                        StandardCharsets.UTF_8);
        ProgramImage image = BuiltProgram.of(platform, folder.resolve(block), common + text);
        Machine machine = new Machine(platform);
        machine.load(image);
        String onBench = BuiltProgram.saysUntil(machine, "end.", 2);
        assertThat(onBench).contains("all well, end.");
        System.out.printf("exercise of %s: %s cycles%n", block, machine.cycles());
        Tool.write(folder, "exercise.hex", ImageFiles.of(image, "exercise").getFirst().bytes());
        for (String simulator : List.of("iverilog", "verilator")) {
            String said =
                    Tool.run(
                            folder,
                            "make -s -C sim run SIM=%s IMAGE=exercise.hex UNTIL=end. CYCLES=3000000"
                                    .formatted(simulator)
                                    .split(" "));
            assertThat(said.replaceFirst("(?s)\\R- testbench.v.*", "").strip())
                    .isEqualTo(onBench.strip());
        }
        machine.load(image);
        // What is in another clock domain is seen some cycles earlier or later.
        if (!block.equals("watchdog")) {
            assertThat(StepByStep.difference(folder, machine, 0)).isEmpty();
        }
    }
}
