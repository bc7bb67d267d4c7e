package polymetron.everything;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.TreeMap;
import polymetron.Shipped;
import polymetron.address.Address;
import polymetron.bus.Protocol;
import polymetron.edit.Edit;
import polymetron.edit.Editor;
import polymetron.edit.RejectedEdit;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.finding.Checks;
import polymetron.finding.Finding;
import polymetron.finding.Fix;
import polymetron.finding.Grade;
import polymetron.library.BlockType;
import polymetron.library.Vlnv;
import polymetron.platform.Block;
import polymetron.platform.Bus;
import polymetron.platform.ClockDomain;
import polymetron.platform.Names;
import polymetron.platform.Platform;
import polymetron.wiring.Proposal;
import polymetron.wiring.WiringPlan;

/**
 * Platforms of many shapes: one or two processors or the hard complex, split or shared sides, memories of several sizes and
 * ports, buses two bridges deep, blocks of every type with registers, names that mean something somewhere, a bus of 40
 * address bits, blocks at the top of the address space. What the checks call an error is settled with the fixes that they
 * offer; a platform where that is not possible is left out.
 */
final class RandomPlatform {
    private static final Editor EDITOR = new Editor(Shipped.LIBRARY);
    private static final List<String> NAMES =
            List.of(
                    "main",
                    "text",
                    "data",
                    "stack",
                    "flash",
                    "flash_memory",
                    "int8",
                    "platform",
                    "clock",
                    "register",
                    "org",
                    "l",
                    "size",
                    "console",
                    "console_irq",
                    "soc",
                    "cpus",
                    "memory",
                    "timer_mtime",
                    "while",
                    "new",
                    "class",
                    "std",
                    "x0",
                    "errno",
                    "signal",
                    "gpio_output",
                    "uart",
                    "sram",
                    "chosen",
                    "hart0",
                    "riscv",
                    "unix",
                    "linux",
                    "end",
                    "etext",
                    "bss",
                    "rodata",
                    "init",
                    "start");

    private final Random random;

    /** Whether only what there is hardware for is used. */
    private final boolean isBuilt;

    private Platform platform;

    private RandomPlatform(long seed, boolean isBuilt) {
        this.random = new Random(seed);
        this.isBuilt = isBuilt;
    }

    /** Empty when errors are left. */
    static Optional<Platform> of(long seed) {
        return new RandomPlatform(seed, false).make();
    }

    /** One of blocks that there is hardware for, in several clock domains; empty when errors are left. */
    static Optional<Platform> built(long seed) {
        return new RandomPlatform(seed, true).make();
    }

    private Optional<Platform> make() {
        boolean hard = !isBuilt && random.nextInt(5) == 0;
        platform =
                Platform.empty(
                        random.nextInt(6) == 0 ? "Stdio" : "Any board " + random.nextInt(9),
                        Vlnv.parse(
                                "polymetron:boards:%s:1.0".formatted(hard ? "sluice" : "terrace")));
        if (hard) {
            add("complex", "processor:hard-complex:1.0", Map.of("BAUD", "1562500"));
        } else {
            processors();
        }
        // A fast line, so that a run takes seconds.
        add("serial_console", "serial:uart:1.0", Map.of("BAUD", isBuilt ? "3125000" : "1562500"));
        if (!hard) {
            add("interrupts", "interrupt:interrupt-controller:1.1", Map.of("SOURCES", "31"));
            add(
                    "timer",
                    "timer:machine-timer:1.0",
                    Map.of("DIVIDER", "" + (1 + random.nextInt(200))));
        }
        if (isBuilt) {
            clocks();
        }
        List<BlockType> types =
                Shipped.LIBRARY.types().stream()
                        .filter(type -> !type.registers().isEmpty() && type.needs() == null)
                        .filter(type -> !type.identity().name().equals("interrupt-controller"))
                        .filter(type -> !type.identity().name().equals("machine-timer"))
                        .filter(type -> !isBuilt || type.hardware() != null)
                        .toList();
        int count = 4 + random.nextInt(8);
        for (int index = 0; index < count; index++) {
            BlockType type = types.get(random.nextInt(types.size()));
            add(name(type), type.identity(), parameters(type));
        }
        wire();
        shape();
        wire();
        if (isBuilt) {
            for (Block block : platform.blocks()) {
                if (block.type().name().equals("uart")) {
                    apply(new Edit.SetParameter(block.name(), "BAUD", "3125000"));
                }
            }
            otherClocks();
            group();
        }
        return settled();
    }

    /** Domains of a PLL with a ratio of no particular kind, released by a reset synchroniser or by the board. */
    private void clocks() {
        add(
                "pll",
                "infrastructure:pll:1.0",
                Map.of("MULTIPLY", "8", "OUTPUTS", "2", "OUT0", "9", "OUT1", "17"));
        apply(new Edit.AddDomain(new ClockDomain("main", "oscillator", "reset_button")));
        apply(new Edit.SetDomain("pll", "clk", "main"));
        apply(new Edit.AddDomain(new ClockDomain("other", "pll.out0", "reset_button")));
        apply(new Edit.AddDomain(new ClockDomain("third", "pll.out1", "reset_button")));
    }

    /** Some blocks become a group, which is a module of its own in hardware. */
    private void group() {
        List<String> members = new ArrayList<>();
        for (Block block : platform.blocks()) {
            boolean isPart = !block.name().startsWith("cpu") && !block.type().name().equals("uart");
            if (isPart && random.nextInt(3) == 0) {
                members.add(block.name());
            }
        }
        if (members.size() > 1 && random.nextBoolean()) {
            apply(new Edit.Group("part", members));
        }
    }

    /** Some blocks move to another clock, which their way to the bus then crosses. */
    private void otherClocks() {
        for (Block block : platform.blocks()) {
            block.domains()
                    .keySet()
                    .forEach(input -> apply(new Edit.SetDomain(block.name(), input, "main")));
        }
        if (random.nextInt(3) == 0) {
            return;
        }
        for (Block block : platform.blocks()) {
            boolean moves = random.nextInt(4) == 0 && !block.type().name().equals("uart");
            if (moves && block.domains().containsKey("clk") && block.domains().containsKey("rst")) {
                String domain = random.nextBoolean() ? "other" : "third";
                apply(new Edit.SetDomain(block.name(), "clk", domain));
                apply(new Edit.SetDomain(block.name(), "rst", domain));
            }
        }
    }

    private void processors() {
        String type =
                isBuilt || random.nextBoolean()
                        ? "processor:rv32-small:1.1"
                        : "processor:rv32-fast:1.0";
        Map<String, String> sides = new TreeMap<>(Map.of("COMPRESSED", "0"));
        if (isBuilt) {
            sides.put("COMPRESSED", "" + random.nextInt(2));
        }
        sides.put("MULTIPLIER", List.of("none", "iterative", "fast").get(random.nextInt(3)));
        sides.put("LOCAL_INTERRUPTS", "" + random.nextInt(4));
        add("cpu", type, sides);
        Map<String, String> memory = new TreeMap<>();
        memory.put("SIZE", "" + (65536 + 16 * 16 * random.nextInt(512)));
        memory.put("PORTS", random.nextInt(3) == 0 ? "2" : "1");
        add("code", "memory:block-memory:1.1", memory);
        if (random.nextInt(3) == 0) {
            add(name(null), "memory:block-memory:1.0", Map.of("SIZE", "8192"));
        }
        if (random.nextInt(4) == 0) {
            add(name(null), "memory:read-only-memory:1.0", Map.of());
        }
        if (random.nextInt(3) == 0) {
            String start = random.nextBoolean() ? "0x0000_0000" : "0x0000_8000";
            add(
                    "cpu2",
                    "processor:rv32-small:1.1",
                    Map.of("HART_ID", "7", "RESET_VECTOR", start, "MULTIPLIER", "fast"));
        }
    }

    private String name(BlockType type) {
        String wish =
                type != null && random.nextInt(3) > 0
                        ? type.defaultName()
                        : NAMES.get(random.nextInt(NAMES.size()));
        List<String> taken = new ArrayList<>();
        platform.blocks().forEach(block -> taken.add(block.name()));
        return Names.free(wish, taken);
    }

    /** A legal value for some parameters, tried out one by one. */
    private Map<String, String> parameters(BlockType type) {
        Map<String, String> chosen = new TreeMap<>();
        for (var parameter : type.parameters()) {
            if (random.nextInt(3) > 0) {
                continue;
            }
            String value =
                    switch (parameter.form()) {
                        case BOOLEAN -> "" + random.nextInt(2);
                        case CHOICE ->
                                parameter
                                        .choices()
                                        .get(random.nextInt(parameter.choices().size()))
                                        .value();
                        // Whatever becomes the console has to say a few thousand characters.
                        case INTEGER ->
                                parameter.name().equals("BAUD")
                                        ? "" + (1_562_500 >> random.nextInt(7))
                                        : "" + (1 << random.nextInt(7));
                        default -> null;
                    };
            if (value == null) {
                continue;
            }
            Map<String, String> tried = new TreeMap<>(chosen);
            tried.put(parameter.name(), value);
            if (new polymetron.elaborate.BlockShape(type, tried).faults().isEmpty()) {
                chosen.put(parameter.name(), value);
            }
        }
        return chosen;
    }

    private void add(String name, String type, Map<String, String> parameters) {
        add(name, Vlnv.parse("polymetron:" + type), parameters);
    }

    private void add(String name, Vlnv type, Map<String, String> parameters) {
        platform = EDITOR.apply(platform, new Edit.AddBlock(name, type, parameters));
    }

    /** What the plan proposes, with a choice made wherever it leaves one. */
    private void wire() {
        for (int round = 0; round < 40; round++) {
            WiringPlan plan =
                    WiringPlan.propose(platform, Shipped.LIBRARY, WiringPlan.Decisions.NONE);
            apply(plan.asEdit("wire"));
            Optional<Proposal> open =
                    plan.proposals().stream().filter(line -> !line.choices().isEmpty()).findFirst();
            if (open.isEmpty()) {
                return;
            }
            var choices =
                    open.get().choices().stream().filter(each -> !each.edits().isEmpty()).toList();
            if (choices.isEmpty()
                    || !apply(
                            new Edit.Several(
                                    "choose",
                                    choices.get(random.nextInt(choices.size())).edits()))) {
                return;
            }
        }
    }

    private boolean apply(Edit edit) {
        try {
            platform = EDITOR.apply(platform, edit);
            return true;
        } catch (RejectedEdit no) {
            return false;
        }
    }

    private void shape() {
        String main = platform.buses().isEmpty() ? null : platform.buses().getFirst().name();
        if (main == null) {
            return;
        }
        Bus bus = platform.bus(main).orElseThrow();
        if (random.nextInt(2) == 0) {
            bus =
                    bus.withProtocol(
                            protocol(List.of(Protocol.AXI4, Protocol.WISHBONE, Protocol.AHB_LITE)));
            apply(new Edit.ChangeBus(bus));
        }
        if (random.nextInt(4) == 0) {
            bus = bus.withAddressWidth(40);
            apply(new Edit.ChangeBus(bus));
            far(main);
        }
        if (random.nextInt(3) == 0) {
            behindBridges(bus);
        }
        if (random.nextInt(4) == 0) {
            fetchApart(bus);
        }
        if (random.nextInt(3) == 0) {
            top(main);
        }
    }

    private Optional<String> device() {
        List<String> devices =
                platform.blocks().stream()
                        .filter(block -> block.attachments().containsKey("registers"))
                        .map(Block::name)
                        .filter(name -> !name.equals("interrupts"))
                        .toList();
        return devices.isEmpty()
                ? Optional.empty()
                : Optional.of(devices.get(random.nextInt(devices.size())));
    }

    private void far(String bus) {
        device().ifPresent(
                        name ->
                                apply(
                                        new Edit.Attach(
                                                name,
                                                "registers",
                                                bus,
                                                new Address(0x12_0000_0000L),
                                                null)));
    }

    private void top(String bus) {
        device().ifPresent(
                        name ->
                                apply(
                                        new Edit.Attach(
                                                name,
                                                "registers",
                                                bus,
                                                new Address(0xFFFF_0000L),
                                                null)));
    }

    private Protocol protocol(List<Protocol> among) {
        return among.get(random.nextInt(among.size()));
    }

    private void behindBridges(Bus bus) {
        String upper = bus.name();
        for (int depth = 0; depth < 1 + random.nextInt(2); depth++) {
            String lower = "slow" + depth;
            apply(
                    new Edit.AddBus(
                            new Bus(
                                    lower,
                                    protocol(List.of(Protocol.values())),
                                    32,
                                    32,
                                    bus.domain())));
            String bridge = "bridge" + depth;
            add(
                    bridge,
                    Shipped.BRIDGE,
                    Map.of("WINDOW", depth == 0 ? "1048576" : "262144", "ORIGIN", "0x0010_0000"));
            apply(new Edit.SetDomain(bridge, "clk", bus.domain()));
            apply(new Edit.SetDomain(bridge, "rst", bus.domain()));
            apply(new Edit.Attach(bridge, "behind", lower, null, null));
            apply(
                    new Edit.Attach(
                            bridge,
                            "window",
                            upper,
                            new Address(depth == 0 ? 0x5000_0000L : 0x0014_0000L),
                            null));
            for (int block = 0; block < 2; block++) {
                long base = 0x0010_0000L + 0x1_0000L * block;
                device().ifPresent(
                                name ->
                                        apply(
                                                new Edit.Attach(
                                                        name,
                                                        "registers",
                                                        lower,
                                                        new Address(base),
                                                        null)));
            }
            upper = lower;
        }
    }

    /** Instructions on a bus of their own, through the second port of the memory where it has one. */
    private void fetchApart(Bus bus) {
        if (platform.block("code").isEmpty()) {
            return;
        }
        apply(new Edit.AddBus(new Bus("local", Protocol.AXI4_LITE, 32, 32, bus.domain())));
        apply(new Edit.Attach("cpu", "instruction", "local", null, null));
        boolean two = "2".equals(platform.block("code").orElseThrow().parameters().get("PORTS"));
        apply(new Edit.Attach("code", two ? "second" : "port", "local", new Address(0), null));
    }

    /** The platform after the first fix of the first error, again and again; empty when errors remain. */
    private Optional<Platform> settled() {
        for (int step = 0; step < 60; step++) {
            ElaboratedPlatform elaborated = Shipped.elaborate(platform);
            List<Finding> errors =
                    Checks.run(elaborated).stream()
                            .filter(finding -> finding.grade() == Grade.ERROR)
                            .toList();
            if (errors.isEmpty()) {
                return Optional.of(platform);
            }
            Optional<Fix> fix =
                    errors.stream().flatMap(finding -> finding.fixes().stream()).findFirst();
            if (fix.isEmpty() || !apply(fix.get().edit())) {
                return Optional.empty();
            }
        }
        return Optional.empty();
    }
}
