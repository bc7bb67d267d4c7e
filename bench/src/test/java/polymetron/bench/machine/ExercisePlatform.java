package polymetron.bench.machine;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import polymetron.Shipped;
import polymetron.address.Address;
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
        return programOf(platform, folder, text);
    }

    /** A program that defines {@code exercise}. */
    static ProgramImage programOf(ElaboratedPlatform platform, Path folder, String text)
            throws IOException {
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
                inputs(platform, each)
                        .forEach(input -> edits.add(new Edit.SetDomain(each, input, "main")));
            }
        }
        edits.add(new Edit.AddBus(new Bus("system", Protocol.AXI4_LITE, 32, 32, "main")));
        platform = EDITOR.apply(platform, new Edit.Several(null, edits));
        platform = EDITOR.apply(platform, new Edit.BindPart("spi", "port", "converter"));
        platform = EDITOR.apply(platform, new Edit.BindPart("i2c", "wires", "thermometer"));
        return ready(platform);
    }

    /** Streams from and to memory, through every element, into another clock and back; and what measures. */
    static ElaboratedPlatform streams() {
        return Shipped.elaborate(streaming());
    }

    private static Platform streaming() {
        Platform platform = Platform.empty("Streams", Vlnv.parse("polymetron:boards:terrace:1.0"));
        Map<String, Edit.AddBlock> blocks = new LinkedHashMap<>();
        add(blocks, "cpu", "processor:rv32-small:1.1", Map.of("MULTIPLIER", "iterative"));
        add(blocks, "code", "memory:block-memory:1.1", Map.of("SIZE", "65536"));
        add(blocks, "data", "memory:block-memory:1.1", Map.of("SIZE", "16384"));
        add(blocks, "console", "serial:uart:1.0", Map.of());
        add(blocks, "interrupts", "interrupt:interrupt-controller:1.1", Map.of("SOURCES", "31"));
        add(blocks, "pll", "infrastructure:pll:1.0", Map.of("MULTIPLY", "8", "OUT0", "13"));
        add(
                blocks,
                "mover",
                "data-movement:dma:1.0",
                Map.of("RING", "1", "FIFO", "16", "BURST", "4"));
        add(blocks, "split", "stream:splitter:1.0", Map.of("OUTPUTS", "4"));
        add(blocks, "queue", "stream:fifo:1.0", Map.of("DEPTH", "16", "LANES", "1"));
        add(
                blocks,
                "widen",
                "stream:width-adapter:1.0",
                Map.of("IN_WIDTH", "32", "OUT_WIDTH", "64"));
        add(blocks, "there", "stream:clock-crossing:1.0", Map.of("WIDTH", "64", "DEPTH", "8"));
        add(blocks, "back", "stream:clock-crossing:1.0", Map.of("WIDTH", "64", "DEPTH", "8"));
        add(
                blocks,
                "narrow",
                "stream:width-adapter:1.0",
                Map.of("IN_WIDTH", "64", "OUT_WIDTH", "32"));
        add(
                blocks,
                "decimate",
                "stream:decimating-filter:1.0",
                Map.of("SAMPLE", "16", "CHANNELS", "3", "RATE", "8", "ORDER", "3"));
        add(blocks, "recorder", "data-movement:ring-writer:1.0", Map.of("BURST", "4"));
        add(
                blocks,
                "fir",
                "stream:fir-filter:1.0",
                Map.of(
                        "SAMPLE", "16",
                        "CHANNELS", "3",
                        "TAPS", "5",
                        "MULTIPLIERS", "2",
                        "COEFFICIENTS", "8192, 16384, 8192"));
        add(
                blocks,
                "collector",
                "data-movement:dma:1.0",
                Map.of("CHANNELS", "receive", "FIFO", "64", "BURST", "4"));
        add(
                blocks,
                "trigger",
                "stream:threshold-trigger:1.0",
                Map.of("SAMPLE", "16", "CHANNELS", "3", "SHORT", "2", "LONG", "16"));
        add(blocks, "events", "stream:event-counter:1.0", Map.of("GATE", "1000"));
        add(
                blocks,
                "reader",
                "stream:converter-reader:1.0",
                Map.of("DIVIDER", "4", "PERIOD", "400"));
        add(
                blocks,
                "probe",
                "infrastructure:signal-probe:1.0",
                Map.of("DEPTH", "32", "BEFORE", "6", "TRIGGER", "packet"));
        add(blocks, "pps", "timer:pps-timestamp:1.0", Map.of("NOMINAL", "10000", "WINDOW", "200"));
        add(
                blocks,
                "flash",
                "memory:flash-controller:1.0",
                Map.of("SIZE", "33554432", "LINES", "4", "DIVIDER", "2"));
        add(blocks, "analog", "io:analog-monitor:1.0", Map.of("CHANNELS", "1"));
        platform = EDITOR.apply(platform, new Edit.Several(null, List.copyOf(blocks.values())));
        List<Edit> edits = new ArrayList<>();
        edits.add(new Edit.AddDomain(new ClockDomain("main", "oscillator", "reset_button")));
        edits.add(new Edit.SetDomain("pll", "clk", "main"));
        edits.add(new Edit.AddDomain(new ClockDomain("other", "pll.out0", "reset_button")));
        for (String each : blocks.keySet()) {
            for (String input : inputs(platform, each)) {
                boolean isOther =
                        (each.equals("there") == input.startsWith("out_"))
                                && (each.equals("there") || each.equals("back"));
                if (!each.equals("pll")) {
                    edits.add(new Edit.SetDomain(each, input, isOther ? "other" : "main"));
                }
            }
        }
        edits.add(new Edit.AddBus(new Bus("system", Protocol.AXI4_LITE, 32, 32, "main")));
        connect(edits, "mover.to_stream split.in", "split.out0 queue.in", "queue.out widen.in");
        connect(edits, "widen.out there.in", "there.out back.in", "back.out narrow.in");
        connect(edits, "narrow.out mover.from_stream", "split.out1 decimate.in");
        connect(
                edits,
                "decimate.out recorder.in",
                "split.out2 fir.in",
                "fir.out collector.from_stream");
        connect(
                edits,
                "split.out3 trigger.in",
                "trigger.events events.in",
                "reader.samples probe.watched");
        platform = EDITOR.apply(platform, new Edit.Several(null, edits));
        platform = EDITOR.apply(platform, new Edit.BindPart("reader", "port", "converter"));
        platform = EDITOR.apply(platform, new Edit.BindPart("pps", "receiver", "receiver"));
        platform = EDITOR.apply(platform, new Edit.BindPart("flash", "chip", "flash"));
        platform = EDITOR.apply(platform, new Edit.BindPart("analog", "inputs", "battery"));
        return ready(platform);
    }

    /** A processor with caches, and a mover that writes memory behind them. */
    static ElaboratedPlatform cached() {
        Platform platform = Platform.empty("Cached", Vlnv.parse("polymetron:boards:terrace:1.0"));
        Map<String, Edit.AddBlock> blocks = new LinkedHashMap<>();
        add(blocks, "cpu", "processor:rv32-fast:1.0", Map.of("COMPRESSED", "0"));
        add(blocks, "code", "memory:block-memory:1.1", Map.of("SIZE", "32768"));
        add(blocks, "console", "serial:uart:1.0", Map.of());
        add(blocks, "mover", "data-movement:dma:1.0", Map.of("FIFO", "16", "BURST", "4"));
        platform = EDITOR.apply(platform, new Edit.Several(null, List.copyOf(blocks.values())));
        List<Edit> edits = new ArrayList<>();
        edits.add(new Edit.AddDomain(new ClockDomain("main", "oscillator", "reset_button")));
        for (String each : blocks.keySet()) {
            inputs(platform, each)
                    .forEach(input -> edits.add(new Edit.SetDomain(each, input, "main")));
        }
        edits.add(new Edit.AddBus(new Bus("system", Protocol.AXI4, 64, 32, "main")));
        connect(edits, "mover.to_stream mover.from_stream");
        return Shipped.elaborate(ready(EDITOR.apply(platform, new Edit.Several(null, edits))));
    }

    /** Logic outside on each protocol, memory chips, and a mover beside the processor. */
    static ElaboratedPlatform buses() {
        Platform platform = Platform.empty("Buses", Vlnv.parse("polymetron:boards:terrace:1.0"));
        Map<String, Edit.AddBlock> blocks = new LinkedHashMap<>();
        add(blocks, "cpu", "processor:rv32-small:1.1", Map.of("MULTIPLIER", "iterative"));
        add(blocks, "code", "memory:block-memory:1.1", Map.of("SIZE", "32768"));
        add(blocks, "console", "serial:uart:1.0", Map.of());
        add(blocks, "interrupts", "interrupt:interrupt-controller:1.1", Map.of("SOURCES", "8"));
        add(blocks, "pll", "infrastructure:pll:1.0", Map.of("MULTIPLY", "8", "OUT0", "13"));
        add(blocks, "mover", "data-movement:dma:1.0", Map.of("FIFO", "16", "BURST", "4"));
        add(blocks, "chips", "memory:external-memory-controller:1.0", Map.of());
        Map<String, Protocol> buses = new LinkedHashMap<>();
        buses.put("wide", Protocol.AXI4);
        buses.put("lite", Protocol.AXI4_LITE);
        buses.put("ahb", Protocol.AHB_LITE);
        buses.put("wishbone", Protocol.WISHBONE);
        buses.put("apb", Protocol.APB);
        add(blocks, "on_axi4", "infrastructure:external-bus-port:1.0", Map.of());
        for (String bus : buses.keySet()) {
            add(
                    blocks,
                    "on_" + bus,
                    "infrastructure:external-bus-port:1.0",
                    Map.of("WIDTH", bus.equals("wide") ? "64" : "32"));
            add(blocks, "to_" + bus, "infrastructure:bridge:1.0", Map.of("WINDOW", "1048576"));
        }
        platform = EDITOR.apply(platform, new Edit.Several(null, List.copyOf(blocks.values())));
        List<Edit> edits = new ArrayList<>();
        edits.add(new Edit.AddDomain(new ClockDomain("main", "oscillator", "reset_button")));
        edits.add(new Edit.SetDomain("pll", "clk", "main"));
        edits.add(new Edit.AddDomain(new ClockDomain("other", "pll.out0", "reset_button")));
        for (String each : blocks.keySet()) {
            boolean isOther = each.equals("on_ahb");
            if (!each.equals("pll")) {
                inputs(platform, each)
                        .forEach(
                                input ->
                                        edits.add(
                                                new Edit.SetDomain(
                                                        each, input, isOther ? "other" : "main")));
            }
        }
        edits.add(new Edit.AddBus(new Bus("system", Protocol.AXI4, 32, 32, "main")));
        edits.add(new Edit.Attach("on_axi4", "port", "system", null, null));
        edits.add(new Edit.Attach("chips", "port", "system", null, null));
        edits.add(new Edit.Attach("code", "port", "system", new Address(0), null));
        for (String side : List.of("registers", "reads", "writes")) {
            edits.add(new Edit.Attach("mover", side, "system", null, null));
        }
        edits.add(new Edit.Attach("console", "registers", "system", null, null));
        edits.add(new Edit.Attach("interrupts", "registers", "system", null, null));
        for (Map.Entry<String, Protocol> each : buses.entrySet()) {
            String bus = each.getKey();
            int width = bus.equals("wide") ? 64 : 32;
            edits.add(
                    new Edit.AddBus(
                            new Bus(
                                    bus,
                                    each.getValue(),
                                    width,
                                    32,
                                    bus.equals("ahb") ? "other" : "main")));
            edits.add(new Edit.Attach("to_" + bus, "behind", bus, null, null));
            edits.add(new Edit.Attach("to_" + bus, "window", "system", null, null));
            edits.add(new Edit.Attach("on_" + bus, "port", bus, null, null));
        }
        connect(edits, "mover.to_stream mover.from_stream");
        platform = EDITOR.apply(platform, new Edit.Several(null, edits));
        platform = EDITOR.apply(platform, new Edit.BindPart("chips", "chips", "chips"));
        return Shipped.elaborate(ready(platform));
    }

    /** With everything that the plan wires, and a console that is not slow to simulate. */
    private static Platform ready(Platform platform) {
        Platform wired =
                EDITOR.apply(
                        platform,
                        WiringPlan.propose(platform, Shipped.LIBRARY, WiringPlan.Decisions.NONE)
                                .asEdit("wire"));
        return EDITOR.apply(wired, new Edit.SetParameter("console", "BAUD", "3125000"));
    }

    /** Clock and reset inputs of a block. */
    private static List<String> inputs(Platform platform, String block) {
        BlockType type =
                Shipped.LIBRARY.type(platform.block(block).orElseThrow().type()).orElseThrow();
        List<String> inputs = new ArrayList<>();
        type.clocks().forEach(port -> inputs.add(port.name()));
        type.resets().forEach(port -> inputs.add(port.name()));
        return inputs;
    }

    private static void connect(List<Edit> edits, String... streams) {
        for (String stream : streams) {
            String[] ends = stream.split("[ .]");
            edits.add(new Edit.ConnectStream(ends[0], ends[1], ends[2], ends[3]));
        }
    }

    private static void add(
            Map<String, Edit.AddBlock> blocks,
            String name,
            String type,
            Map<String, String> parameters) {
        blocks.put(name, new Edit.AddBlock(name, Vlnv.parse("polymetron:" + type), parameters));
    }
}
