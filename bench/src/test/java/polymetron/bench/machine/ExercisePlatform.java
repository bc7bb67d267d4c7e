package polymetron.bench.machine;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import polymetron.Shipped;
import polymetron.bus.Protocol;
import polymetron.edit.Edit;
import polymetron.edit.Editor;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.library.BlockType;
import polymetron.library.Vlnv;
import polymetron.output.image.ProgramImage;
import polymetron.platform.Bus;
import polymetron.platform.ClockDomain;
import polymetron.platform.Platform;
import polymetron.wiring.WiringPlan;

/** The platform that all exercises share, with every block that has one, and their programs. */
final class ExercisePlatform {
    private static final Editor EDITOR = new Editor(Shipped.LIBRARY);

    private ExercisePlatform() {}

    static ElaboratedPlatform elaborated() {
        return Shipped.elaborate(wired());
    }

    /** The exercise of a block type, with what all of them have. */
    static ProgramImage program(ElaboratedPlatform platform, Path folder, String block)
            throws IOException {
        String text =
                new String(
                        Shipped.file("block-types/" + block + "/exercise/exercise.c"),
                        StandardCharsets.UTF_8);
        String common =
                new String(
                        ExercisePlatform.class
                                .getResourceAsStream("/polymetron/exercise.c")
                                .readAllBytes(),
                        StandardCharsets.UTF_8);
        return BuiltProgram.of(platform, folder, common + text);
    }

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
        add(blocks, "line", "serial:uart:1.0", Map.of("BAUD", "3125000"));
        add(blocks, "ticker", "timer:general-timer:1.0", Map.of());
        add(
                blocks,
                "port",
                "io:gpio:1.0",
                Map.of("WIDTH", "8", "DIRECTION", "both", "EDGE_INTERRUPT", "1"));
        add(blocks, "i2c", "serial:i2c-controller:1.0", Map.of());
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
        platform = EDITOR.apply(platform, new Edit.BindPart("i2c", "wires", "thermometer"));
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
}
