package polymetron.output.hardware;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;
import polymetron.Shipped;
import polymetron.address.Address;
import polymetron.edit.Edit;
import polymetron.edit.Editor;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.library.Vlnv;
import polymetron.output.HandoffFile;
import polymetron.platform.Bus;
import polymetron.platform.ClockDomain;
import polymetron.platform.Platform;

final class HardwareTest {
    private static final Editor EDITOR = new Editor(Shipped.LIBRARY);

    private static Platform byPriority(Integer instruction, Integer data) {
        Bus bus = Shipped.demo().bus("system").orElseThrow();
        return EDITOR.apply(
                Shipped.demo(),
                new Edit.Several(
                        null,
                        List.of(
                                new Edit.ChangeBus(
                                        bus.withArbitration(Bus.Arbitration.BY_PRIORITY)),
                                new Edit.SetPriority("cpu", "instruction", instruction),
                                new Edit.SetPriority("cpu", "data", data))));
    }

    private static List<String> order(Platform platform) {
        ElaboratedPlatform elaborated = Shipped.elaborate(platform);
        return elaborated.bus("system").orElseThrow().inOrder().stream()
                .map(each -> each.form().name())
                .toList();
    }

    /** 0 goes first, and who has none goes last: the lowest line of the arbiter wins. */
    @Test
    void prioritiesAreTheOrderOfTheLines() {
        assertThat(order(byPriority(3, 0))).containsExactly("data", "instruction");
        assertThat(order(byPriority(0, 3))).containsExactly("instruction", "data");
        assertThat(order(byPriority(null, 7))).containsExactly("data", "instruction");
        assertThat(order(byPriority(7, null))).containsExactly("instruction", "data");
    }

    /** A group is a module with the nets of its edge as ports; taken out again, nothing is left of it. */
    @Test
    void aGroupIsAModule() {
        Platform grouped =
                EDITOR.apply(Shipped.demo(), new Edit.Group("front", List.of("lamps", "gain")));
        Hardware hardware = Hardware.of(Shipped.elaborate(grouped));
        assertThat(hardware.notBuilt()).isEmpty();
        String top = hardware.modules().getLast().text();
        String group =
                hardware.modules().stream()
                        .filter(module -> module.name().endsWith("_front__group"))
                        .findFirst()
                        .orElseThrow()
                        .text();
        assertThat(top).contains("front__group (").doesNotContain("_front_lamps front_lamps (");
        assertThat(group).contains(" front_lamps (", " front_gain (");
        List<String> names = new ArrayList<>();
        hardware.files().stream().map(HandoffFile::path).forEach(names::add);
        assertThat(names).contains("hdl/ridge_station_front__group.v");
    }

    /** A watchdog that resets the domain that it is in would never release it. */
    @Test
    void whatResetsItselfIsNotBuilt() {
        Platform platform =
                EDITOR.apply(
                        Shipped.demo(),
                        new Edit.Several(
                                null,
                                List.of(
                                        new Edit.AddBlock(
                                                "guard",
                                                Vlnv.parse("polymetron:timer:watchdog:1.0"),
                                                null),
                                        new Edit.AddDomain(
                                                new ClockDomain(
                                                        "guarded", "oscillator", "guard.expired")),
                                        new Edit.SetDomain("guard", "clk", "guarded"),
                                        new Edit.SetDomain("guard", "rst", "guarded"),
                                        new Edit.Attach(
                                                "guard",
                                                "registers",
                                                "system",
                                                new Address(0x1010_0000),
                                                null))));
        assertThat(Hardware.of(Shipped.elaborate(platform)).notBuilt().toString())
                .contains("guard, which resets it, is in it and would reset itself");
    }
}
