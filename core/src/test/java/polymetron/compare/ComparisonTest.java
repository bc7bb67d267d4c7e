package polymetron.compare;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import polymetron.Shipped;
import polymetron.address.Address;
import polymetron.bus.Protocol;
import polymetron.edit.Edit;
import polymetron.edit.Editor;
import polymetron.platform.Bus;
import polymetron.platform.Platform;

final class ComparisonTest {
    private static final Editor EDITOR = new Editor(Shipped.LIBRARY);

    private static List<String> changes(Edit... edits) {
        Platform after = EDITOR.apply(Shipped.demo(), new Edit.Several(null, List.of(edits)));
        List<Change> there = Comparison.of(Shipped.demo(), after);
        // The way back is the same with both sides swapped.
        assertThat(Comparison.of(after, Shipped.demo()))
                .extracting(Change::before)
                .containsAll(there.stream().map(Change::after).toList());
        assertThat(Comparison.of(after, after)).isEmpty();
        return there.stream()
                .map(
                        change ->
                                "%s %s: %s → %s"
                                        .formatted(
                                                change.sort(),
                                                change.subject(),
                                                change.before(),
                                                change.after()))
                .toList();
    }

    @Test
    void everyDecisionIsCompared() {
        assertThat(
                        changes(
                                new Edit.RenamePlatform("Valley Station"),
                                new Edit.AddBus(new Bus("slow", Protocol.APB, 32, 20, "main")),
                                new Edit.SetParameter("console", "BAUD", "9600"),
                                new Edit.SetParameter("gain", "WIDTH", null),
                                new Edit.Attach(
                                        "lamps", "registers", "slow", new Address(0x3000), true),
                                new Edit.DisconnectInterrupt("service", "irq"),
                                new Edit.SetDomain("timer", "rst", null),
                                new Edit.Unbind("lamps", "lines")))
                .containsExactly(
                        "platform name: Ridge Station → Valley Station",
                        "bus slow: null → apb, 32-bit data, 20-bit addresses, in main",
                        "parameter console.BAUD: 115200 → 9600",
                        "parameter gain.WIDTH: 8 → null",
                        "bus attachment lamps.registers: system → slow, held",
                        "address lamps.registers: 0x1000_2000 → 0x0000_3000",
                        "interrupt service.irq: interrupts.inputs 2 → null",
                        "clock or reset timer.rst: main → null",
                        "board part or pins lamps.lines: lamps → null");
    }

    @Test
    void blocksComeGoAndAreRenamed() {
        assertThat(changes(new Edit.RenameBlock("lamps", "bar")))
                .containsExactly("block bar: named lamps → named bar");
        assertThat(changes(new Edit.RemoveBlock("service")))
                .startsWith("block service: polymetron:io:gpio:1.0 → null")
                .contains("address service.registers: 0x1000_3000 → null");
        assertThat(changes(new Edit.AddBlock("more", Shipped.GPIO, Map.of("WIDTH", "3"))))
                .containsExactly(
                        "block more: null → polymetron:io:gpio:1.0",
                        "parameter more.WIDTH: null → 3");
    }
}
