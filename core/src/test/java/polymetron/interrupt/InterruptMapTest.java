package polymetron.interrupt;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import polymetron.Shipped;
import polymetron.address.Address;
import polymetron.edit.Edit;
import polymetron.edit.Editor;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.Elaborator;
import polymetron.elaborate.InterruptLink;
import polymetron.finding.Checks;
import polymetron.finding.Finding;
import polymetron.interrupt.InterruptMap.Port;
import polymetron.library.BlockType;
import polymetron.library.BlockTypeDocument;
import polymetron.library.Library;
import polymetron.library.Vlnv;
import polymetron.lookup.WhereIs;
import polymetron.platform.Platform;

/** Numbers on both sides, and where software sets them: RISC-V PLIC 1.0.0, memory map; Privileged ISA, mcause. */
public final class InterruptMapTest {
    /** Rules that the tests here provoke. */
    public static final List<String> PROVOKED =
            List.of("interrupt-circle", "interrupt-without-hart");

    private static Port port(Platform platform, String ref) {
        return InterruptMap.of(Shipped.elaborate(platform)).ports().stream()
                .filter(port -> port.ref().toString().equals(ref))
                .findFirst()
                .orElseThrow();
    }

    @Test
    void sourcesOfTheControllerCountFromOneAndItsWiresFromZero() {
        Port inputs = port(Shipped.demo(), "interrupts.inputs");
        assertThat(inputs.port().first()).isEqualTo(1);
        assertThat(inputs.hardwareLine(1)).isZero();
        assertThat(inputs.softwareNumber(1)).isEqualTo(1);
        assertThat(inputs.controllerBase()).hasToString("0x1400_0000");
        assertThat(inputs.priorityAddress(5)).hasToString("0x1400_0014");
        assertThat(inputs.enableAddress(5, 0)).hasToString("0x1400_2000");
        assertThat(inputs.enableAddress(33, 0)).hasToString("0x1400_2004");
        assertThat(inputs.thresholdAddress(0)).hasToString("0x1420_0000");
        assertThat(inputs.unused()).isEqualTo(inputs.port().count() - inputs.inputs().size());
    }

    @Test
    void linesOfTheHartHaveTheCausesOfTheSpecification() {
        Platform demo = Shipped.demo();
        assertThat(port(demo, "cpu.software").softwareNumber(0)).isEqualTo(3);
        assertThat(port(demo, "cpu.timer").softwareNumber(0)).isEqualTo(7);
        assertThat(port(demo, "cpu.external").softwareNumber(0)).isEqualTo(11);
    }

    @Test
    void sharedAndOpenSourcesAreTold() {
        Platform shared =
                new Editor(Shipped.LIBRARY)
                        .apply(
                                Shipped.recipe("acquisition"),
                                new Edit.ConnectInterrupt(
                                        "console", "irq", "interrupts", "inputs", 1));
        assertThat(port(shared, "interrupts.inputs").inputs().get(1)).hasSize(2);
        Platform open =
                new Editor(Shipped.LIBRARY)
                        .apply(Shipped.demo(), new Edit.DisconnectInterrupt("console", "irq"));
        assertThat(InterruptMap.of(Shipped.elaborate(open)).open())
                .extracting(link -> link.ref().toString())
                .containsExactly("console.irq");
    }

    /** The hard complex has a controller of its own: its first input from the logic is source 32 there. */
    @Test
    void theHardComplexNumbersItsLinesItself() {
        Port logic = port(Shipped.recipe("lock"), "complex.logic");
        assertThat(logic.softwareNumber(logic.port().first())).isEqualTo(32);
        assertThat(logic.hardwareLine(logic.port().first())).isZero();
        assertThat(logic.priorityAddress(32).bits()).isEqualTo(0xE400_0080L);
    }

    private static final Vlnv FOR_SEVERAL =
            Vlnv.parse("polymetron:interrupt:interrupt-controller:1.1");

    private static Platform with(Edit... edits) {
        return new Editor(Shipped.LIBRARY)
                .apply(Shipped.demo(), new Edit.Several(null, List.of(edits)));
    }

    /**
     * RISC-V PLIC 1.0.0, memory map: enable bits of context 1 at 0x002080, threshold at 0x201000; the registers of the block
     * type lie there too.
     */
    @Test
    void everyHartHasItsOwnEnableBitsAndThreshold() {
        Platform two =
                with(
                        new Edit.SetType("interrupts", FOR_SEVERAL),
                        new Edit.SetParameter("interrupts", "CONTEXTS", "2"),
                        new Edit.AddBlock("cpu2", Shipped.PROCESSOR, null),
                        new Edit.ConnectInterrupt(
                                "interrupts", "external1", "cpu2", "external", 0));
        Port inputs = port(two, "interrupts.inputs");
        assertThat(inputs.contexts())
                .extracting(link -> link.wire().block())
                .containsExactly("cpu", "cpu2");
        assertThat(inputs.enableAddress(5, 1)).hasToString("0x1400_2080");
        assertThat(inputs.thresholdAddress(1)).hasToString("0x1420_1000");
        assertThat(
                        WhereIs.find(Shipped.elaborate(two), "interrupts.THRESHOLD1", 9).stream()
                                .map(found -> Address.format(found.address())))
                .contains("0x1420_1000");
        assertThat(
                        WhereIs.find(Shipped.elaborate(two), "interrupts.enable1", 9).stream()
                                .map(found -> Address.format(found.address())))
                .contains("0x1400_2080");
    }

    @Test
    void controllersInCascadeLeadToTheHartAndNeverRoundInACircle() {
        Edit[] cascade = {
            new Edit.AddBlock("second", Shipped.CONTROLLER, null),
            new Edit.ConnectInterrupt("console", "irq", "second", "inputs", 3),
            new Edit.ConnectInterrupt("second", "external", "interrupts", "inputs", 9)
        };
        ElaboratedPlatform platform = Shipped.elaborate(with(cascade));
        InterruptLink console = link(platform, "console.irq");
        assertThat(InterruptWays.of(platform).from(console))
                .extracting(link -> link.wire().block() + " " + link.wire().input())
                .containsExactly("second 3", "interrupts 9", "cpu 0");
        assertThat(rules(platform)).doesNotContain("interrupt-circle", "interrupt-without-hart");

        Platform round =
                new Editor(Shipped.LIBRARY)
                        .apply(
                                platform.platform(),
                                new Edit.ConnectInterrupt(
                                        "interrupts", "external", "second", "inputs", 4));
        assertThat(rules(Shipped.elaborate(round))).contains("interrupt-circle");

        Platform nowhere =
                new Editor(Shipped.LIBRARY)
                        .apply(
                                platform.platform(),
                                new Edit.DisconnectInterrupt("interrupts", "external"));
        assertThat(rules(Shipped.elaborate(nowhere))).contains("interrupt-without-hart");
    }

    private static InterruptLink link(ElaboratedPlatform platform, String ref) {
        return platform.interrupts().stream()
                .filter(link -> link.ref().toString().equals(ref))
                .findFirst()
                .orElseThrow();
    }

    private static List<String> rules(ElaboratedPlatform platform) {
        return Checks.run(platform).stream().map(Finding::rule).toList();
    }

    /** An input takes what its gateway or hart can see; a low level would interrupt all the time. */
    @Test
    void aSourceSignalsAsItsInputTakes() {
        String text =
                new String(Shipped.file("block-types/uart/block-type.json"), StandardCharsets.UTF_8)
                        .replace("serial:uart:1.0", "serial:low-uart:1.0")
                        .replace("\"trigger\": \"high\"", "\"trigger\": \"low\"");
        BlockType low = BlockTypeDocument.read("low-uart.json", text);
        List<BlockType> types = new ArrayList<>(Shipped.LIBRARY.types());
        types.add(low);
        Library library =
                new Library(
                        types,
                        Shipped.LIBRARY.boards(),
                        Shipped.LIBRARY.devices(),
                        Shipped.LIBRARY.recipes(),
                        Map.of());
        Platform platform =
                new Editor(library)
                        .apply(
                                Shipped.demo(),
                                new Edit.Several(
                                        null,
                                        List.of(
                                                new Edit.AddBlock("low", low.identity(), null),
                                                new Edit.ConnectInterrupt(
                                                        "low", "irq", "interrupts", "inputs", 9))));
        assertThat(Checks.run(new Elaborator(library).elaborate(platform)))
                .filteredOn(finding -> finding.rule().equals("interrupt-trigger"))
                .extracting(Finding::what)
                .containsExactly(
                        "low.irq signals by a low level, which interrupts.inputs does not take");
    }
}
