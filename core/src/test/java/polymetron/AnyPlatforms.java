package polymetron;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import polymetron.address.Address;
import polymetron.edit.Edit;
import polymetron.edit.Editor;
import polymetron.edit.RejectedEdit;
import polymetron.library.BlockType;
import polymetron.library.Board;
import polymetron.library.Recipe;
import polymetron.platform.Block;
import polymetron.platform.Bus;
import polymetron.platform.ClockDomain;
import polymetron.platform.PinSetting;
import polymetron.platform.Platform;
import polymetron.platform.PlatformDocument;
import polymetron.wiring.Starter;
import polymetron.wiring.WiringPlan;

/** Platforms as people leave them: begun from a recipe, a demo or a handful of blocks, changed at random, wired or not. */
public final class AnyPlatforms {
    private static final Editor EDITOR = new Editor(Shipped.LIBRARY);
    private static final List<String> DEMOS =
            List.of("ridge-station", "highland-station", "canal-lock", "first-steps");

    private final Random random;

    public AnyPlatforms(long seed) {
        this.random = new Random(seed);
    }

    /** One that a few edits of any sort have left in a bad state. */
    public Platform broken() {
        Platform platform = Shipped.recipe(random.nextBoolean() ? "station" : "acquisition");
        for (int count = 0; count < 8; count++) {
            platform = changed(platform);
        }
        return platform;
    }

    private <T> T any(List<T> all) {
        return all.get(random.nextInt(all.size()));
    }

    private Edit edit(Platform platform) {
        Block block = any(platform.blocks());
        BlockType type = Shipped.LIBRARY.type(block.type()).orElseThrow();
        Bus bus = any(platform.buses());
        return switch (random.nextInt(13)) {
            case 0 -> new Edit.RemoveBlock(block.name());
            case 1 -> new Edit.SetDomain(block.name(), any(type.clocks()).name(), null);
            case 2, 3 ->
                    new Edit.Attach(
                            block.name(),
                            any(
                                    new ArrayList<>(block.attachments().keySet()).isEmpty()
                                            ? List.of("registers")
                                            : new ArrayList<>(block.attachments().keySet())),
                            bus.name(),
                            new Address(random.nextInt(0x4000) * 0x400L),
                            random.nextInt(4) == 0);
            case 4 ->
                    new Edit.AddBlock(
                            "more" + random.nextInt(100),
                            any(new ArrayList<>(Shipped.LIBRARY.types())).identity(),
                            Map.of());
            case 5 ->
                    type.parameters().isEmpty()
                            ? new Edit.RemoveBlock("missing")
                            : new Edit.SetParameter(
                                    block.name(),
                                    any(type.parameters()).name(),
                                    Integer.toString(random.nextInt(5000)));
            case 6 -> {
                List<String> sources = new ArrayList<>(block.interrupts().keySet());
                yield sources.isEmpty()
                        ? new Edit.RemoveBlock("missing")
                        : new Edit.ConnectInterrupt(
                                block.name(),
                                any(sources),
                                "interrupts",
                                "inputs",
                                random.nextInt(40));
            }
            case 7 -> {
                List<String> outward = new ArrayList<>(block.outward().keySet());
                yield outward.isEmpty()
                        ? new Edit.RemoveBlock("missing")
                        : new Edit.Unbind(block.name(), any(outward));
            }
            case 8 ->
                    new Edit.Reserve(
                            bus.name(),
                            "later",
                            new Address(random.nextInt(64) * 0x40_0000L),
                            new Address(random.nextInt(64) * 0x40_0000L + 0x3F_FFFF));
            case 9 -> new Edit.SetTraffic("cpu", "data", 1 + random.nextInt(2_000_000_000) * 1L);
            case 10 ->
                    type.outward().isEmpty()
                            ? new Edit.RemoveBlock("missing")
                            : new Edit.SetPins(
                                    block.name(),
                                    type.outward().getFirst().name(),
                                    type.outward().getFirst().ports().getFirst().name(),
                                    new PinSetting(
                                            any(List.of("LVCMOS18", "LVDS25", "LVCMOS33", "none")),
                                            random.nextInt(3) == 0 ? null : 5,
                                            any(List.of(PinSetting.Slew.values())),
                                            any(List.of(PinSetting.Pull.values())),
                                            null));
            case 11 ->
                    new Edit.AddDomain(
                            new ClockDomain("extra", any(List.of("oscillator", "pll.out0")), null));
            default -> new Edit.ChangeBus(bus.withAddressWidth(12 + random.nextInt(50)));
        };
    }

    /** Any of what there is to begin with. */
    public Platform begun() {
        return switch (random.nextInt(3)) {
            case 0 -> {
                String demo = any(DEMOS) + ".json";
                String text = new String(Shipped.file("demo/" + demo), StandardCharsets.UTF_8);
                yield PlatformDocument.read(demo, text);
            }
            case 1 -> handful();
            default -> recipe();
        };
    }

    private Platform recipe() {
        Recipe recipe = any(new ArrayList<>(Shipped.LIBRARY.recipes()));
        List<Board> boards = Shipped.LIBRARY.boards().stream().filter(recipe::fits).toList();
        return Starter.start(Shipped.LIBRARY, "Any", any(boards).identity(), recipe);
    }

    private Platform handful() {
        Platform platform =
                Platform.empty("Any", any(new ArrayList<>(Shipped.LIBRARY.boards())).identity());
        int count = 3 + random.nextInt(9);
        Set<String> hard = new HashSet<>();
        for (int at = 0; at < count; at++) {
            BlockType type = any(new ArrayList<>(Shipped.LIBRARY.types()));
            if (type.needs() == null || hard.add(type.needs())) {
                platform =
                        EDITOR.apply(
                                platform,
                                new Edit.AddBlock("block" + at, type.identity(), Map.of()));
            }
        }
        return random.nextInt(4) == 0 ? platform : wired(platform);
    }

    public Platform wired(Platform platform) {
        WiringPlan.Decisions decisions = WiringPlan.Decisions.NONE;
        return EDITOR.apply(
                platform, WiringPlan.propose(platform, Shipped.LIBRARY, decisions).asEdit("wire"));
    }

    /** A platform in use: begun, changed a few times, perhaps wired again. */
    public Platform worked() {
        Platform platform = begun();
        int changes = random.nextInt(7);
        for (int at = 0; at < changes && !platform.blocks().isEmpty(); at++) {
            platform = changed(platform);
        }
        return random.nextInt(3) == 0 ? wired(platform) : platform;
    }

    private Platform changed(Platform platform) {
        if (platform.buses().isEmpty()) {
            return platform;
        }
        try {
            return EDITOR.apply(platform, edit(platform));
        } catch (RejectedEdit senseless) {
            return platform;
        }
    }
}
