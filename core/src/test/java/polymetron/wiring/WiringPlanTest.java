package polymetron.wiring;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.Collections;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.TreeMap;
import java.util.stream.Collectors;
import org.junit.jupiter.api.RepeatedTest;
import org.junit.jupiter.api.RepetitionInfo;
import org.junit.jupiter.api.Test;
import polymetron.Shipped;
import polymetron.address.Address;
import polymetron.bus.Protocol;
import polymetron.edit.Edit;
import polymetron.edit.Editor;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.InterfaceRef;
import polymetron.finding.Checks;
import polymetron.fit.DeviceFit;
import polymetron.library.BlockType;
import polymetron.library.Device;
import polymetron.library.Vlnv;
import polymetron.output.handoff.Handoff;
import polymetron.platform.Block;
import polymetron.platform.Bus;
import polymetron.platform.Platform;
import polymetron.platform.PlatformDocument;

final class WiringPlanTest {
    private static final Map<String, Vlnv> WISHES =
            Map.of(
                    "cpu", Shipped.PROCESSOR,
                    "memory", Shipped.MEMORY,
                    "console", Shipped.UART,
                    "lamps", Shipped.GPIO,
                    "switches", Shipped.GPIO,
                    "timer", Shipped.TIMER,
                    "interrupts", Shipped.CONTROLLER);

    private final Editor editor = new Editor(Shipped.LIBRARY);

    private Platform unwired(List<String> order) {
        Platform platform = Platform.empty("Test", Shipped.BOARD);
        for (String name : order) {
            Map<String, String> parameters =
                    switch (name) {
                        case "lamps" -> Map.of("WIDTH", "8", "DIRECTION", "out");
                        case "switches" -> Map.of("WIDTH", "8", "DIRECTION", "in");
                        default -> Map.of();
                    };
            platform =
                    editor.apply(platform, new Edit.AddBlock(name, WISHES.get(name), parameters));
        }
        return platform;
    }

    private static WiringPlan plan(Platform platform) {
        return WiringPlan.propose(platform, Shipped.LIBRARY, WiringPlan.Decisions.NONE);
    }

    private Platform wired(Platform platform) {
        return editor.apply(platform, plan(platform).asEdit("wire"));
    }

    @RepeatedTest(20)
    void tiesEveryLooseEndInAnyOrderAndOnlyOnce(RepetitionInfo repetition) {
        List<String> order = new ArrayList<>(new TreeMap<>(WISHES).keySet());
        Platform reference = wired(unwired(order));
        Collections.shuffle(order, new Random(repetition.getCurrentRepetition()));
        Platform platform = wired(unwired(order));

        assertThat(Checks.run(Shipped.elaborate(platform))).isEmpty();
        assertThat(plan(platform).proposals()).isEmpty();
        assertThat(byName(platform)).isEqualTo(byName(reference));
        assertThat(Handoff.of(Shipped.elaborate(platform)).fingerprint())
                .isEqualTo(Handoff.of(Shipped.elaborate(reference)).fingerprint());
    }

    private static Map<String, Block> byName(Platform platform) {
        return platform.blocks().stream().collect(Collectors.toMap(Block::name, block -> block));
    }

    @Test
    void everyLineSaysWhatAndWhy() {
        List<Proposal> lines =
                plan(unwired(new ArrayList<>(new TreeMap<>(WISHES).keySet()))).proposals();
        assertThat(lines).allSatisfy(line -> assertThat(line.what()).isNotBlank());
        assertThat(lines).allSatisfy(line -> assertThat(line.why()).isNotBlank());
        assertThat(lines.stream().map(Proposal::key)).doesNotHaveDuplicates();
        assertThat(lines.stream().map(Proposal::why))
                .anyMatch(why -> why.contains("50 MHz is within 1 MHz to 120 MHz"))
                .anyMatch(why -> why.contains("same name as the board part"))
                .anyMatch(why -> why.contains("reaches executable memory only"));
    }

    @Test
    void neverUndoesWhatTheUserDecided() {
        Platform platform = unwired(List.of("cpu", "memory", "console"));
        platform =
                editor.apply(
                        platform,
                        new Edit.AddBus(new Bus("mine", Protocol.AXI4_LITE, 32, 20, null)));
        platform =
                editor.apply(
                        platform,
                        new Edit.Attach(
                                "console", "registers", "mine", new Address(0x8_0000), true));
        Platform wired = wired(platform);
        assertThat(wired.buses()).hasSize(1);
        assertThat(wired.block("console").orElseThrow().attachments().get("registers").base())
                .isEqualTo(new Address(0x8_0000));
        assertThat(wired.block("memory").orElseThrow().attachments().get("port").bus())
                .isEqualTo("mine");
    }

    @Test
    void ambiguityIsOfferedAndNotGuessed() {
        Platform platform = wired(unwired(List.of("cpu", "memory")));
        platform =
                editor.apply(
                        platform,
                        new Edit.AddBus(new Bus("other", Protocol.AXI4_LITE, 32, 32, "main")));
        platform = editor.apply(platform, new Edit.AddBlock("console", Shipped.UART, null));
        WiringPlan open = plan(platform);
        Proposal line =
                open.proposals().stream()
                        .filter(each -> each.key().equals("attach:console.registers"))
                        .findFirst()
                        .orElseThrow();
        assertThat(line.edits()).isEmpty();
        assertThat(line.choices()).extracting(Proposal.Choice::label).contains("system", "other");
        WiringPlan chosen =
                WiringPlan.propose(
                        platform,
                        Shipped.LIBRARY,
                        new WiringPlan.Decisions(Set.of(), Map.of(line.key(), 1), null, null));
        Platform wired = editor.apply(platform, chosen.asEdit("wire"));
        assertThat(wired.block("console").orElseThrow().attachments().get("registers").bus())
                .isEqualTo("other");
    }

    @Test
    void aLineThatIsSwitchedOffIsLeftOut() {
        Platform platform = unwired(List.of("cpu", "memory", "console"));
        WiringPlan plan =
                WiringPlan.propose(
                        platform,
                        Shipped.LIBRARY,
                        new WiringPlan.Decisions(
                                Set.of("attach:console.registers"), Map.of(), null, null));
        List<Edit> on =
                plan.proposals().stream()
                        .filter(line -> !line.key().equals("attach:console.registers"))
                        .flatMap(line -> line.edits().stream())
                        .toList();
        Platform wired = editor.apply(platform, new Edit.Several("wire", on));
        assertThat(wired.block("console").orElseThrow().attachments()).isEmpty();
        assertThat(wired.block("memory").orElseThrow().attachments()).isNotEmpty();
    }

    @Test
    void aBridgeGetsABusAndBlocksGoThereOnRequest() {
        Platform platform =
                editor.apply(Shipped.demo(), new Edit.AddBlock("bridge", Shipped.BRIDGE, null));
        WiringPlan plan = plan(platform);
        assertThat(plan.proposals())
                .extracting(Proposal::what)
                .contains("bus peripherals behind bridge, APB")
                .anyMatch(what -> what.startsWith("bridge.window on system at 0x1010_0000"));
        Platform bridged = editor.apply(platform, plan.asEdit("wire"));
        assertThat(Checks.run(Shipped.elaborate(bridged))).isEmpty();
        assertThat(plan(bridged).proposals()).isEmpty();

        Platform more = editor.apply(bridged, new Edit.AddBlock("watchers", Shipped.GPIO, null));
        WiringPlan there =
                WiringPlan.propose(
                        more,
                        Shipped.LIBRARY,
                        new WiringPlan.Decisions(Set.of(), Map.of(), null, "peripherals"));
        assertThat(there.proposals())
                .anySatisfy(
                        line -> {
                            assertThat(line.what())
                                    .isEqualTo(
                                            "watchers.registers on peripherals at 0x0000_0000, 4"
                                                    + " KiB");
                            assertThat(line.why()).startsWith("the bus that you chose");
                        });
        ElaboratedPlatform seen = Shipped.elaborate(editor.apply(more, there.asEdit("wire")));
        assertThat(seen.space(new InterfaceRef("cpu", "data")).orElseThrow().ranges())
                .anySatisfy(
                        target -> {
                            assertThat(target.block().name()).isEqualTo("watchers");
                            assertThat(target.range().base()).isEqualTo(0x1010_0000L);
                            assertThat(target.via()).containsExactly("bridge");
                        });
    }

    @Test
    void recipesStartWithoutFindings() {
        for (var board : Shipped.LIBRARY.boards()) {
            var fitting =
                    Shipped.LIBRARY.recipes().stream()
                            .filter(recipe -> recipe.fits(board))
                            .toList();
            assertThat(fitting).as(board.title()).isNotEmpty();
            for (var recipe : fitting) {
                Platform started = Starter.start(Shipped.LIBRARY, "Test", board.identity(), recipe);
                // Notes are advice: a recipe may have reasons of its own.
                assertThat(Checks.run(Shipped.elaborate(started)))
                        .as(recipe.name() + " on " + board.title())
                        .noneMatch(finding -> finding.grade() != polymetron.finding.Grade.NOTE);
            }
        }
    }

    /** Every block type is placed on every board where it fits, and wired without an error. */
    @Test
    void everyBlockTypeIsWired() {
        Set<Vlnv> fitted = new HashSet<>();
        for (var board : Shipped.LIBRARY.boards()) {
            Platform base =
                    Starter.start(
                            Shipped.LIBRARY,
                            "Test",
                            board.identity(),
                            Shipped.LIBRARY.recipe("console").orElseThrow());
            Device device = Shipped.LIBRARY.device(board.device()).orElseThrow();
            for (var type : Shipped.LIBRARY.types()) {
                if (type.needs() != null && device.hardBlocks(type.needs()) == 0) {
                    continue;
                }
                Platform placed =
                        editor.apply(base, new Edit.AddBlock("another", type.identity(), null));
                if (!DeviceFit.of(Shipped.elaborate(placed)).orElseThrow().fits()) {
                    continue;
                }
                fitted.add(type.identity());
                Platform wired = editor.apply(placed, plan(placed).asEdit("wire"));
                assertThat(Checks.run(Shipped.elaborate(wired)))
                        .as(type.title() + " on " + board.title())
                        .noneMatch(finding -> finding.grade() == polymetron.finding.Grade.ERROR);
                assertThat(
                                plan(wired).proposals().stream()
                                        .filter(line -> line.choices().isEmpty()))
                        .as(type.title() + ", planned again")
                        .isEmpty();
            }
        }
        assertThat(fitted)
                .containsExactlyInAnyOrderElementsOf(
                        Shipped.LIBRARY.types().stream().map(BlockType::identity).toList());
    }

    @Test
    void theDemoIsItsRecipe() {
        Platform made =
                Starter.start(
                        Shipped.LIBRARY,
                        "Ridge Station",
                        Shipped.BOARD,
                        Shipped.LIBRARY.recipe("station").orElseThrow());
        assertThat(PlatformDocument.write(made)).isEqualTo(Shipped.demoText());
    }
}
