package polymetron.edit;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.junit.jupiter.api.RepeatedTest;
import org.junit.jupiter.api.RepetitionInfo;
import org.junit.jupiter.api.Test;
import polymetron.Shipped;
import polymetron.address.Address;
import polymetron.bus.Protocol;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.finding.Checks;
import polymetron.json.Documents;
import polymetron.library.Vlnv;
import polymetron.output.handoff.Handoff;
import polymetron.platform.Bus;
import polymetron.platform.ClockDomain;
import polymetron.platform.Platform;
import polymetron.platform.PlatformDocument;

final class EditorTest {
    private final Editor editor = new Editor(Shipped.LIBRARY);

    @Test
    void refusalsSayWhatWouldBeRight() {
        refused(new Edit.AddBlock("cpu", Shipped.UART, null), "name", "already a block named cpu");
        refused(new Edit.AddBlock("My Cpu", Shipped.UART, null), "name", "lower-case");
        refused(
                new Edit.AddBlock("x", Vlnv.parse("a:b:c:9.9"), null),
                "type",
                "no block type a:b:c:9.9");
        refused(new Edit.RemoveBlock("missing"), "block", "missing");
        refused(new Edit.SetParameter("console", "SPEED", "1"), "parameter", "it has BAUD");
        refused(new Edit.SetParameter("gain", "DIRECTION", "up"), "value", "one of");
        refused(new Edit.SetParameter("gain", "WIDTH", "3 +"), "value", "expected a value");
        refused(
                new Edit.SetParameter("cpu", "RESET_VECTOR", "0x1_0000_0000_0000_0000"),
                "value",
                "needs 65 bits");
        refused(new Edit.Attach("console", "registers", "north", null, null), "bus", "north");
        refused(
                new Edit.Attach("cpu", "data", "system", new Address(0), null),
                "base",
                "initiator");
        refused(
                new Edit.ConnectInterrupt("console", "irq", "cpu", "timer", 0),
                "sink",
                "device line");
        refused(new Edit.BindPart("console", "serial", "lamps"), "part", "cannot drive");
        refused(new Edit.RemoveBus("system"), "bus", "system");
        refused(new Edit.RemoveDomain("main", null), "into", "main");
        refused(new Edit.RenamePlatform("   "), "name", "name");
        refused(
                new Edit.AddBus(new Bus("wide", Protocol.AXI4_LITE, 32, 65, "main")),
                "addressWidth",
                "64");
        refused(new Edit.AddDomain(new ClockDomain("fast", "quartz", null)), "clock", "oscillator");
    }

    private void refused(Edit edit, String field, String message) {
        assertThatThrownBy(() -> editor.apply(Shipped.demo(), edit))
                .as(edit.describe())
                .isInstanceOfSatisfying(
                        RejectedEdit.class,
                        rejection -> assertThat(rejection.field()).isEqualTo(field))
                .hasMessageContaining(message);
    }

    @Test
    void aPartIsTakenOnce() {
        Platform two =
                editor.apply(
                        Shipped.demo(),
                        new Edit.AddBlock(
                                "more", Shipped.GPIO, Map.of("WIDTH", "8", "DIRECTION", "out")));
        assertThatThrownBy(() -> editor.apply(two, new Edit.BindPart("more", "lines", "lamps")))
                .hasMessageContaining("already taken by lamps");
    }

    @Test
    void renamingAndRemovingTakeInterruptWiresAlong() {
        Platform renamed = editor.apply(Shipped.demo(), new Edit.RenameBlock("interrupts", "plic"));
        assertThat(renamed.block("console").orElseThrow().interrupts().get("irq").block())
                .isEqualTo("plic");
        assertThat(Checks.hasErrors(Checks.run(Shipped.elaborate(renamed)))).isFalse();
        Platform removed = editor.apply(renamed, new Edit.RemoveBlock("plic"));
        assertThat(removed.block("console").orElseThrow().interrupts()).isEmpty();
        assertThat(Shipped.elaborate(removed).dangling()).isEmpty();
    }

    @Test
    void severalEditsAreRefusedWhole() {
        Platform before = Shipped.demo();
        Edit several =
                new Edit.Several(
                        "both",
                        List.of(
                                new Edit.RenamePlatform("New name"),
                                new Edit.RemoveBlock("missing")));
        assertThatThrownBy(() -> editor.apply(before, several)).isInstanceOf(RejectedEdit.class);
        assertThat(PlatformDocument.write(before)).isEqualTo(Shipped.demoText());
        Edit nested = new Edit.RenamePlatform("x");
        for (int depth = 0; depth < 30; depth++) {
            nested = new Edit.Several(null, List.of(nested));
        }
        Edit deep = nested;
        assertThatThrownBy(() -> editor.apply(before, deep)).hasMessageContaining("nested");
    }

    /** Whatever edits are thrown at it: documents round-trip, and nothing downstream ever fails. */
    @RepeatedTest(25)
    void anySequenceOfEditsLeavesAPlatformThatCanBeWorkedOut(RepetitionInfo repetition) {
        Random random = new Random(repetition.getCurrentRepetition());
        Platform platform = Shipped.demo();
        int applied = 0;
        for (int step = 0; step < 60; step++) {
            Edit edit = randomEdit(random, platform);
            Edit again = Documents.read("edit", Documents.write(edit), Edit.class);
            assertThat(again).isEqualTo(edit);
            try {
                platform = editor.apply(platform, edit);
                applied++;
            } catch (RejectedEdit refused) {
                assertThat(refused.getMessage()).isNotBlank();
            }
        }
        assertThat(applied).isGreaterThan(5);
        String text = PlatformDocument.write(platform);
        assertThat(PlatformDocument.write(PlatformDocument.read("again", text))).isEqualTo(text);
        ElaboratedPlatform elaborated = Shipped.elaborate(platform);
        Checks.run(elaborated)
                .forEach(
                        finding ->
                                finding.fixes()
                                        .forEach(
                                                fix ->
                                                        editor.apply(
                                                                elaborated.platform(),
                                                                fix.edit())));
        assertThat(Handoff.of(elaborated).zip()).isEqualTo(Handoff.of(elaborated).zip());
    }

    private static Edit randomEdit(Random random, Platform platform) {
        List<String> names = new ArrayList<>(List.of("cpu", "code", "extra", "more"));
        platform.blocks().forEach(block -> names.add(block.name()));
        String name = names.get(random.nextInt(names.size()));
        String other = names.get(random.nextInt(names.size()));
        Address base = new Address(random.nextLong() >>> random.nextInt(64));
        List<Vlnv> types = Shipped.LIBRARY.types().stream().map(type -> type.identity()).toList();
        Vlnv type = types.get(random.nextInt(types.size()));
        String[] values = {"1", "0", "8", "64K", "WIDTH * 2", "in", "out", "none", "'hFFFF", "-1"};
        String value = values[random.nextInt(values.length)];
        return switch (random.nextInt(16)) {
            case 0, 1 -> new Edit.AddBlock(name + "_" + random.nextInt(9), type, null);
            case 2 -> new Edit.RemoveBlock(name);
            case 3 -> new Edit.RenameBlock(name, other + "x");
            case 4 -> new Edit.SetParameter(name, "SIZE", value);
            case 5 -> new Edit.SetParameter(name, "WIDTH", value);
            case 6 -> new Edit.SetParameter(name, "DIRECTION", value);
            case 7 -> new Edit.SetParameter(name, "RESET_VECTOR", base.toString());
            case 8 -> new Edit.Attach(name, "registers", "system", base, random.nextBoolean());
            case 9 -> new Edit.Attach(name, "port", "system", base, null);
            case 10 -> new Edit.Detach(name, "registers");
            case 11 -> new Edit.ConnectInterrupt(name, "irq", other, "inputs", random.nextInt(40));
            case 12 -> new Edit.SetDomain(name, "clk", random.nextBoolean() ? "main" : null);
            case 13 ->
                    new Edit.BindPart(name, "lines", random.nextBoolean() ? "lamps" : "switches");
            case 14 ->
                    new Edit.BindPins(name, "lines", Map.of("value", List.of("H1", "Z99", "H1")));
            default ->
                    new Edit.ChangeBus(
                            new Bus(
                                    "system",
                                    Protocol.AXI4_LITE,
                                    32,
                                    12 + random.nextInt(53),
                                    "main"));
        };
    }
}
