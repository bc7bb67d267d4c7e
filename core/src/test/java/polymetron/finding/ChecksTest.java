package polymetron.finding;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.SortedMap;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.MethodSource;
import org.junit.jupiter.params.provider.ValueSource;
import polymetron.Shipped;
import polymetron.address.Address;
import polymetron.bus.Protocol;
import polymetron.edit.Edit;
import polymetron.edit.Editor;
import polymetron.interrupt.InterruptMapTest;
import polymetron.library.Vlnv;
import polymetron.pin.PinsTest;
import polymetron.platform.Bus;
import polymetron.platform.ClockDomain;
import polymetron.platform.Outward;
import polymetron.platform.Platform;
import polymetron.platform.PlatformDocument;

final class ChecksTest {
    private static final Editor EDITOR = new Editor(Shipped.LIBRARY);

    private static Arguments breaking(String rule, String subject, String words, Edit... edits) {
        return Arguments.of(rule, subject, words, List.of(edits));
    }

    private static Edit place(String block, String busInterface, long base) {
        return new Edit.Attach(block, busInterface, "system", new Address(base), null);
    }

    /** A bridge at 0x4000_0000, with or without the bus behind it. */
    private static Edit bridge(String behind) {
        List<Edit> edits = new ArrayList<>();
        edits.add(new Edit.AddBlock("bridge", Shipped.BRIDGE, null));
        edits.add(new Edit.SetDomain("bridge", "clk", "main"));
        edits.add(new Edit.SetDomain("bridge", "rst", "main"));
        edits.add(place("bridge", "window", 0x4000_0000));
        if (behind != null) {
            edits.add(new Edit.Attach("bridge", "behind", behind, null, null));
        }
        return new Edit.Several(null, edits);
    }

    private static final Vlnv TWO_PORTS = Vlnv.parse("polymetron:memory:block-memory:1.1");

    /** The program on a bus for instructions alone. */
    private static Edit ownFetchBus(Edit... then) {
        List<Edit> edits = new ArrayList<>();
        edits.add(new Edit.AddBus(new Bus("local", Protocol.AXI4_LITE, 32, 32, "main")));
        edits.add(new Edit.Attach("cpu", "instruction", "local", null, null));
        edits.add(new Edit.Attach("code", "port", "local", new Address(0), null));
        edits.addAll(List.of(then));
        return new Edit.Several(null, edits);
    }

    private static Edit slowBus(Protocol protocol) {
        return new Edit.AddBus(new Bus("slow", protocol, 32, 24, "main"));
    }

    private static final String LIBRARY = "polymetron:";

    private static Edit add(String name, String type, Edit... then) {
        List<Edit> edits = new ArrayList<>();
        edits.add(new Edit.AddBlock(name, Vlnv.parse(LIBRARY + type + ":1.0"), null));
        edits.addAll(List.of(then));
        return new Edit.Several(null, edits);
    }

    private static Edit set(String block, String parameter, String value) {
        return new Edit.SetParameter(block, parameter, value);
    }

    private static Edit in(String block, String port, String domain) {
        return new Edit.SetDomain(block, port, domain);
    }

    /** A FIFO that feeds a counter. */
    private static Edit counted(Edit... then) {
        List<Edit> edits = new ArrayList<>();
        edits.add(add("queue", "stream:fifo"));
        edits.add(add("counter", "stream:event-counter"));
        edits.add(new Edit.ConnectStream("queue", "out", "counter", "in"));
        edits.addAll(List.of(then));
        return new Edit.Several(null, edits);
    }

    private static Edit bursts(Protocol protocol, String width, String burst) {
        return new Edit.Several(
                null,
                List.of(
                        new Edit.AddBus(
                                new Bus("wide", protocol, Integer.parseInt(width), 32, "main")),
                        add("dma", "data-movement:dma"),
                        set("dma", "WIDTH", width),
                        set("dma", "BURST", burst),
                        new Edit.Attach("dma", "reads", "wide", null, null)));
    }

    /** Each way to break the demo, and the finding that has to come of it. */
    static Stream<Arguments> breakages() {
        return Stream.concat(brokenByHand(), brokenCalculations());
    }

    /** What only the calculations of addresses, clocks and fit bring to light. */
    private static Stream<Arguments> brokenCalculations() {
        return Stream.of(
                breaking(
                        "range-reserved",
                        "lamps.registers",
                        "reserved for the old loader",
                        new Edit.Reserve(
                                "system",
                                "the old loader",
                                new Address(0x1000_0000L),
                                new Address(0x10FF_FFFFL))),
                breaking(
                        "target-elsewhere",
                        "shared.port",
                        "side, at 0x0000_0000 for mover",
                        slowBus(Protocol.AXI4_LITE),
                        bridge("slow"),
                        add("shared", "memory:block-memory"),
                        new Edit.Attach("shared", "port", "slow", new Address(0), null),
                        add("mover", "data-movement:dma"),
                        new Edit.Attach("mover", "reads", "slow", null, null)),
                breaking(
                        "bus-overloaded",
                        "system",
                        "1000 % of the time of system is taken by cpu · data side",
                        new Edit.SetTraffic("cpu", "data", 500_000_000L)),
                breaking(
                        "bus-busy",
                        "system",
                        "90 % of the time of system",
                        new Edit.SetTraffic("cpu", "data", 45_000_000L)),
                breaking(
                        "bus-empty", "slow", "nothing is on bus slow", slowBus(Protocol.AXI4_LITE)),
                breaking(
                        "priority-shared",
                        "cpu.instruction",
                        "both have priority 15 on system",
                        new Edit.ChangeBus(
                                new Bus(
                                        "system",
                                        Protocol.AXI4_LITE,
                                        32,
                                        32,
                                        "main",
                                        Bus.Arbitration.BY_PRIORITY,
                                        null))),
                breaking(
                        "hart-number-shared",
                        "other.HART_ID",
                        "cpu and other are both hart 0",
                        add("other", "processor:rv32-small")),
                breaking(
                        "burst-lost",
                        "mover.reads",
                        "sends bursts of 16, and system has none",
                        add("mover", "data-movement:dma"),
                        new Edit.Attach("mover", "reads", "system", null, null)),
                breaking(
                        "wide-read",
                        "console.registers",
                        "a read beside RBR changes it",
                        new Edit.ChangeBus(new Bus("system", Protocol.AXI4_LITE, 64, 32, "main"))),
                breaking(
                        "width-lost",
                        "mover.reads",
                        "has 64 bits, and system has 32",
                        add("mover", "data-movement:dma", set("mover", "WIDTH", "64")),
                        new Edit.Attach("mover", "reads", "system", null, null)),
                breaking(
                        "start-in-empty-memory",
                        "cpu.RESET_VECTOR",
                        "cpu starts in chips, which is empty after configuration",
                        add("chips", "memory:external-memory-controller"),
                        place("chips", "port", 0x8000_0000L),
                        set("cpu", "RESET_VECTOR", "'h8000_0000"),
                        set("cpu", "TRAP_VECTOR", "'h8000_0040")),
                breaking(
                        "fetch-slow",
                        "cpu.instruction",
                        "cycles for each instruction from store.memory",
                        add("store", "memory:flash-controller"),
                        place("store", "memory", 0x8000_0000L),
                        set("cpu", "RESET_VECTOR", "'h8000_0000"),
                        set("cpu", "TRAP_VECTOR", "'h8000_0040")),
                breaking(
                        "clock-circle",
                        "fast",
                        "fast is made by pll.out0, which fast itself drives",
                        add("pll", "infrastructure:pll"),
                        new Edit.AddDomain(new ClockDomain("fast", "pll.out0", "reset_button")),
                        in("pll", "clk", "fast")),
                breaking(
                        "reset-before-clock",
                        "fast",
                        "fast runs on complex.clock0, but leaves its reset with reset_button",
                        add("complex", "processor:hard-complex"),
                        new Edit.AddDomain(
                                new ClockDomain("fast", "complex.clock0", "reset_button"))),
                breaking(
                        "reset-from-other-domain",
                        "console.rst",
                        "console.rst is reset in domain main, but runs on the clock of fast",
                        add("pll", "infrastructure:pll", in("pll", "clk", "main")),
                        new Edit.AddDomain(new ClockDomain("fast", "pll.out0", "reset_button")),
                        in("console", "clk", "fast"),
                        in("console", "rst", "main")),
                breaking(
                        "reset-output-unused",
                        "dog.expired",
                        "no clock domain is reset by dog.expired",
                        add("dog", "timer:watchdog")),
                breaking(
                        "clock-output-unused",
                        "pll.out0",
                        "no clock domain runs on pll.out0",
                        add("pll", "infrastructure:pll", in("pll", "clk", "main"))),
                breaking(
                        "memory-wasteful",
                        "code",
                        "takes memory blocks for",
                        set("code", "SIZE", "512")),
                breaking(
                        "interrupt-inputs-unused",
                        "interrupts.inputs",
                        "of 64 inputs of interrupts are driven by nothing",
                        set("interrupts", "SOURCES", "64")),
                breaking(
                        "interrupt-priority",
                        "console.irq",
                        "console.irq is assigned priority 9; interrupts has 1 to 7",
                        new Edit.SetInterruptPriority("console", "irq", 9)),
                breaking(
                        "interrupt-priority",
                        "timer.timer",
                        "cpu has none",
                        new Edit.SetInterruptPriority("timer", "timer", 1)),
                breaking(
                        "console-missing",
                        "console",
                        "is not driven",
                        new Edit.Unbind("console", "serial")));
    }

    private static Stream<Arguments> brokenByHand() {
        return Stream.of(
                breaking(
                        "two-wire-times",
                        "sensor",
                        "low for 400 ns, fast mode plus, 1 MHz needs 500 ns",
                        add("sensor", "serial:i2c-controller", in("sensor", "clk", "main")),
                        set("sensor", "LOW", "20"),
                        set("sensor", "HIGH", "80")),
                breaking(
                        "rate-off",
                        "pps",
                        "second until the first pulse of pps is 2 s, +100.00 % off",
                        add("pps", "timer:pps-timestamp", in("pps", "clk", "main"))),
                breaking(
                        "clock-off-wish",
                        "audio",
                        "audio runs at 50 MHz; requested 60 MHz",
                        new Edit.AddDomain(
                                new ClockDomain("audio", "oscillator", null, 60_000_000L))),
                breaking(
                        "domain-unused",
                        "audio",
                        "nothing runs on clock domain audio",
                        new Edit.AddDomain(new ClockDomain("audio", "oscillator", null))),
                breaking(
                        "pin-configuration",
                        "sense.lines",
                        "sense.value[0] is on pin D1, which FL9-40 needs",
                        add("sense", "io:gpio", set("sense", "WIDTH", "1")),
                        new Edit.BindPins("sense", "lines", Map.of("value", List.of("D1")))),
                breaking(
                        "pin-on-board-part",
                        "sense.lines",
                        "sense.value[0] is on pin H1, where the board has lamps",
                        add("sense", "io:gpio", set("sense", "WIDTH", "1")),
                        new Edit.BindPins("sense", "lines", Map.of("value", List.of("H1")))),
                breaking(
                        "name-reserved",
                        "reg",
                        "reg is a keyword of C or Verilog",
                        new Edit.RenameBlock("lamps", "reg")),
                breaking(
                        "target-seen-twice",
                        "sense.registers",
                        "cpu.data sees sense at 0x4000_1000",
                        slowBus(Protocol.AXI4_LITE),
                        bridge("slow"),
                        add("again", "infrastructure:bridge"),
                        place("again", "window", 0x6000_0000),
                        new Edit.Attach("again", "behind", "slow", null, null),
                        add("sense", "io:gpio"),
                        new Edit.Attach("sense", "registers", "slow", new Address(0x1000), null)),
                breaking(
                        "target-seen-twice",
                        "code.second",
                        "cpu.data sees code at 0x0000_0000",
                        new Edit.SetType("code", TWO_PORTS),
                        set("code", "PORTS", "2"),
                        new Edit.Attach("code", "second", "system", new Address(0x8000), null)),
                // Instructions come from a bus of their own; the second port is for data.
                breaking(
                        "program-apart",
                        "cpu.RESET_VECTOR",
                        "loads from the same memory at 0x0000_8000",
                        ownFetchBus(
                                new Edit.SetType("code", TWO_PORTS),
                                set("code", "PORTS", "2"),
                                new Edit.Attach(
                                        "code", "second", "system", new Address(0x8000), null))),
                breaking(
                        "program-apart",
                        "cpu.RESET_VECTOR",
                        "finds other there when it loads",
                        ownFetchBus(
                                add("other", "memory:block-memory"),
                                new Edit.Attach("other", "port", "system", new Address(0), null))),
                breaking(
                        "program-apart",
                        "cpu.RESET_VECTOR",
                        "reaches no memory that the bitstream fills",
                        ownFetchBus()),
                breaking(
                        "does-not-fit",
                        "memory blocks",
                        "the memories need 64 memory blocks, FL9-40 has 30",
                        set("code", "SIZE", "65536")),
                breaking(
                        "does-not-fit",
                        "PLLs",
                        "2 PLLs are needed, FL9-40 has 1",
                        add("pll", "infrastructure:pll"),
                        add("other", "infrastructure:pll")),
                breaking(
                        "fit-close",
                        "lookup tables",
                        "of 10080 lookup tables are needed, give or take 25 %",
                        add("second", "processor:rv32-small"),
                        add("fourth", "serial:uart"),
                        add("fifth", "serial:uart")),
                breaking(
                        "pll-limits",
                        "pll",
                        "the oscillator inside would run at 2 GHz; it allows 300 MHz to 700 MHz",
                        add("pll", "infrastructure:pll"),
                        set("pll", "MULTIPLY", "40"),
                        in("pll", "clk", "main")),
                breaking(
                        "range-overlap",
                        "lamps.registers",
                        "overlap at 0x1000_1000–0x1000_1FFF",
                        place("lamps", "registers", 0x1000_1000)),
                breaking(
                        "range-misaligned",
                        "lamps.registers",
                        "0x1000_4010",
                        place("lamps", "registers", 0x1000_4010)),
                breaking(
                        "range-outside",
                        "lamps.registers",
                        "the last address of system, 0x0FFF_FFFF",
                        new Edit.ChangeBus(new Bus("system", Protocol.AXI4_LITE, 32, 28, "main"))),
                breaking(
                        "range-unplaced",
                        "lamps.registers",
                        "has no base",
                        new Edit.Attach("lamps", "registers", "system", null, null)),
                breaking(
                        "target-unreached",
                        "lamps.registers",
                        "on no bus",
                        new Edit.Detach("lamps", "registers")),
                breaking(
                        "target-unreached",
                        "lamps.registers",
                        "no data initiator",
                        new Edit.Detach("cpu", "data")),
                breaking(
                        "initiator-without-memory",
                        "cpu.data",
                        "on no bus",
                        new Edit.Detach("cpu", "data")),
                breaking(
                        "initiator-without-memory",
                        "cpu.instruction",
                        "no executable memory",
                        new Edit.RemoveBlock("code")),
                breaking(
                        "vector-outside-memory",
                        "cpu.RESET_VECTOR",
                        "0x0000_8000",
                        new Edit.SetParameter("cpu", "RESET_VECTOR", "0x8000")),
                breaking(
                        "vector-outside-memory",
                        "cpu.TRAP_VECTOR",
                        "0x1000_0000",
                        new Edit.SetParameter("cpu", "TRAP_VECTOR", "0x1000_0000")),
                breaking(
                        "range-outside",
                        "lamps.registers",
                        "outside what the bridge shows of slow, 0x0000_0000–0x000F_FFFF",
                        slowBus(Protocol.APB),
                        bridge("slow"),
                        new Edit.Attach(
                                "lamps", "registers", "slow", new Address(0x10_0000), null)),
                breaking(
                        "target-unreached",
                        "lamps.registers",
                        "unreachable from any processor",
                        slowBus(Protocol.APB),
                        bridge("slow"),
                        new Edit.Attach("bridge", "window", "slow", new Address(0), null),
                        new Edit.Attach("lamps", "registers", "slow", new Address(0x8_0000), null)),
                breaking("stream-open", "queue.in", "has no source", counted()),
                breaking(
                        "stream-open",
                        "queue.out",
                        "goes nowhere",
                        counted(new Edit.DisconnectStream("queue", "out"))),
                breaking(
                        "stream-width",
                        "queue.out",
                        "queue.out has 64-bit words, counter.in takes 32-bit words",
                        counted(set("queue", "WIDTH", "64"))),
                breaking(
                        "stream-clock",
                        "queue.out",
                        "queue.out is in main, counter.in in other",
                        counted(
                                new Edit.AddDomain(
                                        new ClockDomain("other", "oscillator", "reset_button")),
                                in("queue", "clk", "main"),
                                in("counter", "clk", "other"))),
                breaking(
                        "stream-marks",
                        "queue.out",
                        "another.from_stream needs the end of each packet marked",
                        counted(
                                add("another", "data-movement:dma"),
                                new Edit.ConnectStream("queue", "out", "another", "from_stream"))),
                breaking(
                        "stream-marks",
                        "another.to_stream",
                        "counter.in takes them all",
                        counted(
                                add("another", "data-movement:dma"),
                                new Edit.DisconnectStream("queue", "out"),
                                new Edit.ConnectStream("another", "to_stream", "counter", "in"))),
                breaking(
                        "stream-samples",
                        "queue.out",
                        "queue.out carries 24-bit samples, filter.in expects 16 bits",
                        counted(
                                add("reader", "stream:converter-reader"),
                                add("filter", "stream:fir-filter"),
                                set("filter", "SAMPLE", "16"),
                                new Edit.ConnectStream("reader", "samples", "queue", "in"),
                                new Edit.ConnectStream("queue", "out", "filter", "in"))),
                breaking(
                        "burst-boundary",
                        "dma.reads",
                        "bursts of 256 transfers, 8192 bytes; AXI4 allows 256 and 4096",
                        bursts(Protocol.AXI4, "256", "256")),
                breaking(
                        "burst-boundary",
                        "dma.reads",
                        "bursts of 256 transfers, 2048 bytes; AHB-Lite allows 1024 and 1024",
                        bursts(Protocol.AHB_LITE, "64", "256")),
                breaking(
                        "targets-share-boundary",
                        "second.port",
                        "begins in the same 4 KiB as first ends in",
                        bursts(Protocol.AXI4, "32", "16"),
                        add("first", "memory:block-memory", set("first", "SIZE", "1K")),
                        add("second", "memory:block-memory", set("second", "SIZE", "1K")),
                        new Edit.Attach("first", "port", "wide", new Address(0), null),
                        new Edit.Attach("second", "port", "wide", new Address(0x400), null)),
                breaking(
                        "place-fixed",
                        "complex.memory0",
                        "it always answers at 0x0000_0000",
                        add("complex", "processor:hard-complex"),
                        new Edit.Attach(
                                "complex", "memory0", "system", new Address(0x4000_0000), null)),
                breaking(
                        "hard-block-missing",
                        "complex",
                        "FL9-40 has no processor complex",
                        add("complex", "processor:hard-complex")),
                breaking("bridge-open", "bridge.behind", "no bus behind it", bridge(null)),
                breaking("bridge-loop", "bridge.behind", "from system to system", bridge("system")),
                breaking(
                        "one-initiator",
                        "system",
                        "speaks APB",
                        new Edit.ChangeBus(new Bus("system", Protocol.APB, 32, 32, "main"))),
                breaking(
                        "input-without-clock",
                        "lamps.clk",
                        "clk",
                        new Edit.SetDomain("lamps", "clk", null)),
                breaking(
                        "input-without-reset",
                        "lamps.rst",
                        "rst",
                        new Edit.SetDomain("lamps", "rst", null)),
                breaking(
                        "input-without-reset",
                        "lamps.rst",
                        "which has no reset",
                        new Edit.AddDomain(new ClockDomain("bare", "oscillator", null)),
                        new Edit.SetDomain("lamps", "rst", "bare")),
                breaking(
                        "interrupt-open",
                        "console.irq",
                        "is not connected",
                        new Edit.DisconnectInterrupt("console", "irq")),
                breaking(
                        "interrupt-shared",
                        "service.irq",
                        "input 1",
                        new Edit.ConnectInterrupt("service", "irq", "interrupts", "inputs", 1)),
                breaking(
                        "interrupt-input-missing",
                        "service.irq",
                        "inputs 1 to 15",
                        new Edit.ConnectInterrupt("service", "irq", "interrupts", "inputs", 16)),
                breaking(
                        "interrupt-input-missing",
                        "service.irq",
                        "input 0",
                        new Edit.ConnectInterrupt("service", "irq", "interrupts", "inputs", 0)),
                breaking(
                        "outward-open",
                        "lamps.lines",
                        "no board part or pin",
                        new Edit.Unbind("lamps", "lines")),
                breaking(
                        "outward-mismatch",
                        "lamps.lines",
                        "value is input, lamps needs output",
                        new Edit.SetParameter("lamps", "DIRECTION", "in")),
                breaking(
                        "outward-mismatch",
                        "gain.lines",
                        "18 wide, switches has 8 lines",
                        new Edit.SetParameter("gain", "WIDTH", "18")),
                breaking(
                        "outward-pins",
                        "lamps.lines",
                        "8 pins and has 1",
                        new Edit.BindPins("lamps", "lines", Map.of("value", List.of("H1")))),
                breaking(
                        "baud-error",
                        "console.BAUD",
                        "gets 1562500 Bd, -21.9 %: divisor 2",
                        new Edit.SetParameter("console", "BAUD", "2000000")),
                breaking(
                        "parameter-value",
                        "gain.WIDTH",
                        "1 to 32",
                        new Edit.SetParameter("gain", "WIDTH", "64")),
                breaking(
                        "parameter-value",
                        "cpu.RESET_VECTOR",
                        "depends on itself",
                        new Edit.SetParameter("cpu", "RESET_VECTOR", "TRAP_VECTOR")),
                breaking(
                        "parameter-value",
                        "cpu.TRAP_VECTOR",
                        "TRAP_VECTOR depends on itself: TRAP_VECTOR → TRAP_VECTOR",
                        new Edit.SetParameter("cpu", "TRAP_VECTOR", "TRAP_VECTOR + 4")),
                breaking(
                        "parameter-value",
                        "cpu.RESET_VECTOR",
                        "depends on itself",
                        new Edit.SetParameter("cpu", "TRAP_VECTOR", "1 / 0"),
                        new Edit.SetParameter("cpu", "RESET_VECTOR", "TRAP_VECTOR")),
                breaking(
                        "parameter-value",
                        "cpu.RESET_VECTOR",
                        "division by zero",
                        new Edit.SetParameter("cpu", "RESET_VECTOR", "4 / (3 - 3)")));
    }

    @ParameterizedTest(name = "{0} {1}")
    @MethodSource("breakages")
    void isFoundAndFixed(String rule, String subject, String words, List<Edit> edits) {
        Platform broken = EDITOR.apply(Shipped.demo(), new Edit.Several("break", edits));
        Finding finding = find(broken, rule, subject);
        assertThat(finding).as("%s at %s in %s", rule, subject, run(broken)).isNotNull();
        assertThat(finding.what()).contains(words);
        assertThat(finding.why()).isNotBlank();
        for (Fix fix : finding.fixes()) {
            Platform fixed = EDITOR.apply(broken, fix.edit());
            assertThat(find(fixed, rule, subject)).as(fix.label()).isNull();
        }
    }

    /** Edits refuse a pin that is not there; a document, or another board, can still name one. */
    @Test
    void aPinThatTheDeviceDoesNotHaveIsFoundAndReplaced() {
        Platform demo = Shipped.demo();
        SortedMap<String, List<String>> pins =
                new TreeMap<>(
                        Map.of("value", List.of("H1", "Z9", "H3", "H4", "J1", "J2", "J3", "J4")));
        Platform broken =
                demo.withBlocks(
                        demo.blocks().stream()
                                .map(
                                        block ->
                                                block.name().equals("lamps")
                                                        ? block.withOutward(
                                                                "lines",
                                                                new Outward(null, pins, null))
                                                        : block)
                                .toList());
        Finding finding = find(broken, "outward-pins", "lamps.lines");
        assertThat(finding.what()).contains("no pin Z9");
        assertThat(finding.fixes()).isNotEmpty();
        for (Fix fix : finding.fixes()) {
            assertThat(find(EDITOR.apply(broken, fix.edit()), "outward-pins", "lamps.lines"))
                    .as(fix.label())
                    .isNull();
        }
    }

    private static List<Finding> run(Platform platform) {
        return Checks.run(Shipped.elaborate(platform));
    }

    private static Finding find(Platform platform, String rule, String subject) {
        return run(platform).stream()
                .filter(each -> each.rule().equals(rule) && each.subject().equals(subject))
                .findFirst()
                .orElse(null);
    }

    @Test
    void everyRuleIsProvokedSomewhere() {
        TreeSet<String> provoked = new TreeSet<>();
        breakages().forEach(each -> provoked.add((String) each.get()[0]));
        // These need a library or document that the demo's does not have; see the next tests.
        provoked.addAll(
                List.of(
                        "dangling-reference",
                        "clock-outside-limits",
                        "stream-shared-sink",
                        "interrupt-edge-lost",
                        "interrupt-trigger",
                        "acceptance-outdated"));
        PinsTest.PROVOKED.forEach(provoked::add);
        InterruptMapTest.PROVOKED.forEach(provoked::add);
        SoftwareChecksTest.PROVOKED.forEach(provoked::add);
        assertThat(provoked)
                .containsExactlyInAnyOrderElementsOf(
                        Checks.rules().stream().map(Rule::id).toList());
    }

    @Test
    void aSinkWithTwoSourcesComesOfADocumentOnly() {
        Platform fed = EDITOR.apply(Shipped.demo(), counted());
        Edit second =
                add(
                        "other",
                        "stream:fifo",
                        new Edit.ConnectStream("other", "out", "counter", "in"));
        assertThatThrownBy(() -> EDITOR.apply(fed, second))
                .isInstanceOf(polymetron.edit.RejectedEdit.class)
                .hasMessageContaining("counter.in already has the source queue.out");
        Platform both =
                fed.withBlocks(
                        Stream.concat(
                                        fed.blocks().stream(),
                                        Stream.of(
                                                fed.block("queue").orElseThrow().withName("other")))
                                .toList());
        assertThat(find(both, "stream-shared-sink", "counter.in").what())
                .isEqualTo("queue.out and other.out both feed counter.in");
    }

    @Test
    void whatTheDocumentNamesInVainIsFoundAndTheRestStillWorks() {
        String text =
                Shipped.demoText()
                        .replace("polymetron:serial:uart:1.0", "polymetron:serial:uart:7.0")
                        .replace("\"lamps\"\n        }", "\"lamp_row\"\n        }");
        Platform platform = PlatformDocument.read("document", text);
        assertThat(find(platform, "dangling-reference", "console").what())
                .contains("no block type polymetron:serial:uart:7.0");
        assertThat(Shipped.elaborate(platform).spaces()).isNotEmpty();
        Platform boardless =
                PlatformDocument.read(
                        "document",
                        Shipped.demoText().replace("boards:foreland:1.0", "boards:away:1.0"));
        assertThat(find(boardless, "dangling-reference", "platform").what())
                .contains("polymetron:boards:away:1.0");
    }

    @Test
    void aWarningIsAcceptedUntilItsWordsChange() {
        Platform open = EDITOR.apply(Shipped.demo(), new Edit.Unbind("lamps", "lines"));
        Finding finding = find(open, "outward-open", "lamps.lines");
        Platform accepted =
                EDITOR.apply(
                        open,
                        new Edit.Accept(
                                finding.rule(),
                                finding.subject(),
                                finding.what(),
                                "no lamps yet",
                                "Mira",
                                7L));
        assertThat(find(accepted, "outward-open", "lamps.lines").acceptedReason())
                .isEqualTo("no lamps yet");
        Platform renamed = EDITOR.apply(accepted, new Edit.RenameBlock("lamps", "lights"));
        assertThat(find(renamed, "outward-open", "lights.lines").isAccepted()).isFalse();
        Platform reopened =
                EDITOR.apply(accepted, new Edit.Reopen(finding.rule(), finding.subject()));
        assertThat(find(reopened, "outward-open", "lamps.lines").isAccepted()).isFalse();
    }

    @Test
    void anErrorCannotBeAcceptedAway() {
        Platform broken = EDITOR.apply(Shipped.demo(), place("lamps", "registers", 0x1000_1000));
        Finding finding = find(broken, "range-overlap", "lamps.registers");
        Platform platform = broken;
        try {
            platform =
                    EDITOR.apply(
                            broken,
                            new Edit.Accept(
                                    finding.rule(),
                                    finding.subject(),
                                    finding.what(),
                                    "fine",
                                    null,
                                    null));
        } catch (polymetron.edit.RejectedEdit refused) {
            return;
        }
        assertThat(find(platform, "range-overlap", "lamps.registers").isAccepted()).isFalse();
    }

    /** What we show is right: the station moves its samples, and no bus is overloaded. */
    @ParameterizedTest
    @ValueSource(strings = {"first-steps", "ridge-station", "highland-station", "canal-lock"})
    void aDemoHasNoErrors(String name) throws IOException {
        String file = "/polymetron/library/demo/" + name + ".json";
        try (var in = ChecksTest.class.getResourceAsStream(file)) {
            String text = new String(in.readAllBytes(), java.nio.charset.StandardCharsets.UTF_8);
            assertThat(run(PlatformDocument.read(name, text)))
                    .filteredOn(finding -> finding.grade() == Grade.ERROR)
                    .isEmpty();
        }
    }

    /** A domain of a PLL whose own input is not connected yet. */
    @Test
    void aClockThatIsNotConnectedYetIsNoLoop() {
        Platform platform =
                EDITOR.apply(
                        Shipped.demo(),
                        new Edit.Several(
                                null,
                                List.of(
                                        new Edit.AddBlock(
                                                "pll",
                                                Vlnv.parse("polymetron:infrastructure:pll:1.0"),
                                                null),
                                        new Edit.AddDomain(
                                                new ClockDomain(
                                                        "other", "pll.out0", "reset_button")))));
        assertThat(run(platform)).extracting(Finding::rule).doesNotContain("clock-circle");
    }

    @Test
    void anAcceptanceComesBackWhenItsSubjectChanges() {
        Platform busy =
                EDITOR.apply(Shipped.demo(), new Edit.SetTraffic("cpu", "data", 45_000_000L));
        Finding finding = find(busy, "bus-busy", "system");
        Platform accepted =
                EDITOR.apply(
                        busy,
                        new Edit.Accept(
                                finding.rule(),
                                finding.subject(),
                                finding.what(),
                                "only in the self-test",
                                "Mira",
                                12L));
        Finding now = find(accepted, "bus-busy", "system");
        assertThat(now.acceptance().author()).isEqualTo("Mira");
        assertThat(now.acceptance().revision()).isEqualTo(12);
        assertThat(find(accepted, "acceptance-outdated", "system")).isNull();
        assertThat(PlatformDocument.read("again", PlatformDocument.write(accepted)))
                .isEqualTo(accepted);

        Platform busier = EDITOR.apply(accepted, new Edit.SetTraffic("cpu", "data", 47_500_000L));
        assertThat(find(busier, "bus-busy", "system").isAccepted()).isFalse();
        Finding outdated = find(busier, "acceptance-outdated", "system");
        assertThat(outdated.what())
                .startsWith("accepted by Mira on revision 12 as 'only in the self-test': 90 %");
        Platform forgotten = EDITOR.apply(busier, outdated.fixes().getFirst().edit());
        assertThat(find(forgotten, "acceptance-outdated", "system")).isNull();
    }

    /** One cause is one line, and settling it leaves nothing of it, whatever the places are. */
    @Test
    void findingsOfOneCauseAreOneLineAndAreSettledTogether() {
        List<Edit> edits = new ArrayList<>();
        for (String block : List.of("lamps", "gain", "service", "console")) {
            edits.add(place(block, "registers", 0x1000_0000L));
        }
        Platform heap = EDITOR.apply(Shipped.demo(), new Edit.Several(null, edits));
        FindingGroups.Group group =
                FindingGroups.of(run(heap)).stream()
                        .filter(each -> each.findings().getFirst().rule().equals("range-overlap"))
                        .findFirst()
                        .orElseThrow();
        assertThat(group.findings()).hasSize(3);
        assertThat(group.line()).startsWith("Overlapping ranges: ");
        assertThat(group.step()).isEqualTo(Step.ADDRESSES);
        String key = FindingGroups.key(group.findings().getFirst());
        Platform settled = EDITOR.apply(heap, FixAll.of(Shipped.LIBRARY, heap, key).orElseThrow());
        assertThat(run(settled)).noneMatch(finding -> FindingGroups.key(finding).equals(key));
        assertThat(run(settled)).hasSameSizeAs(run(Shipped.demo()));
    }

    /** Errors before warnings before notes, and within them what blocks an earlier step first. */
    @Test
    void whatBlocksTheNextStepComesFirst() {
        Platform broken =
                EDITOR.apply(
                        Shipped.demo(),
                        new Edit.Several(
                                null,
                                List.of(
                                        new Edit.Unbind("lamps", "lines"),
                                        new Edit.SetDomain("gain", "clk", null),
                                        place("lamps", "registers", 0x1000_0000L),
                                        set("cpu", "RESET_VECTOR", "4 / (3 - 3)"))));
        List<Step> steps =
                run(broken).stream()
                        .filter(finding -> finding.grade() == Grade.ERROR)
                        .map(finding -> Checks.step(finding.rule()))
                        .toList();
        assertThat(steps).isSorted().hasSizeGreaterThan(2);
        assertThat(Checks.rules()).hasSizeGreaterThanOrEqualTo(60);
    }
}
