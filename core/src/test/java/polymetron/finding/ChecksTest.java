package polymetron.finding;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeSet;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.MethodSource;
import polymetron.Shipped;
import polymetron.address.Address;
import polymetron.edit.Edit;
import polymetron.edit.Editor;
import polymetron.platform.Bus;
import polymetron.platform.ClockDomain;
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

    private static Edit slowBus(String protocol) {
        return new Edit.AddBus(new Bus("slow", protocol, 32, 24, "main"));
    }

    /** Each way to break the demo, and the finding that has to come of it. */
    static Stream<Arguments> breakages() {
        return Stream.of(
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
                        new Edit.ChangeBus(new Bus("system", "axi4-lite", 32, 28, "main"))),
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
                        slowBus("apb"),
                        bridge("slow"),
                        new Edit.Attach(
                                "lamps", "registers", "slow", new Address(0x10_0000), null)),
                breaking(
                        "target-unreached",
                        "lamps.registers",
                        "no processor gets through",
                        slowBus("apb"),
                        bridge("slow"),
                        new Edit.Attach("bridge", "window", "slow", new Address(0), null),
                        new Edit.Attach("lamps", "registers", "slow", new Address(0x8_0000), null)),
                breaking("bridge-open", "bridge.behind", "no bus behind it", bridge(null)),
                breaking("bridge-loop", "bridge.behind", "from system to system", bridge("system")),
                breaking(
                        "one-initiator",
                        "system",
                        "speaks APB",
                        new Edit.ChangeBus(new Bus("system", "apb", 32, 32, "main"))),
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
                        "outward-open", "lamps.lines", "no pin", new Edit.Unbind("lamps", "lines")),
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
                        "outward-pins",
                        "lamps.lines",
                        "no pin Z9",
                        new Edit.BindPins("lamps", "lines", Map.of("value", List.of("Z9")))),
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
        // These two need a library or document that the demo's does not have; see the next tests.
        provoked.addAll(List.of("dangling-reference", "clock-outside-limits"));
        assertThat(provoked)
                .containsExactlyInAnyOrderElementsOf(
                        Checks.rules().stream().map(Rule::id).toList());
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
                                finding.rule(), finding.subject(), finding.what(), "no lamps yet"));
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
                                    finding.rule(), finding.subject(), finding.what(), "fine"));
        } catch (polymetron.edit.RejectedEdit refused) {
            return;
        }
        assertThat(find(platform, "range-overlap", "lamps.registers").isAccepted()).isFalse();
    }
}
