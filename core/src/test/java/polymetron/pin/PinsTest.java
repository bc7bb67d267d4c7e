package polymetron.pin;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import polymetron.Shipped;
import polymetron.edit.Edit;
import polymetron.edit.Editor;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.finding.Checks;
import polymetron.platform.Platform;

final class PinsTest {
    private static final Editor EDITOR = new Editor(Shipped.LIBRARY);

    private static Platform change(Platform platform, Edit... edits) {
        return EDITOR.apply(platform, new Edit.Several("change", List.of(edits)));
    }

    /** The demo with two more GPIOs that no board part is left for. */
    private static Platform open() {
        return change(
                Shipped.recipe("acquisition"),
                new Edit.AddBlock("probes", Shipped.GPIO, null),
                new Edit.SetParameter("probes", "WIDTH", "12"),
                new Edit.AddBlock("spare", Shipped.GPIO, null),
                new Edit.SetParameter("spare", "WIDTH", "3"));
    }

    @Test
    void whatIsLeftGetsLegalPinsAndKeepsTogether() {
        ElaboratedPlatform before = Shipped.elaborate(open());
        PinAssignment plan = PinAssignment.of(before);
        assertThat(plan.homeless()).isEmpty();
        assertThat(plan.given()).hasSize(2);
        Platform after = EDITOR.apply(open(), plan.asEdit());
        PinTable table = PinTable.of(Shipped.elaborate(after));
        assertThat(table.open()).isEmpty();
        Set<String> pins = new HashSet<>();
        for (PinLine line : table.lines()) {
            assertThat(pins.add(line.pin())).as(line.port()).isTrue();
            assertThat(line.bank().configurationPins()).doesNotContain(line.pin());
            assertThat(line.standard()).isNotNull();
        }
        assertThat(
                        table.lines().stream()
                                .filter(line -> line.port().startsWith("probes"))
                                .map(line -> line.bank().name())
                                .distinct())
                .hasSize(1);
        assertThat(Checks.run(Shipped.elaborate(after)))
                .noneMatch(finding -> finding.rule().equals("outward-pins"));
        // Applied again it finds nothing to do.
        assertThat(PinAssignment.of(Shipped.elaborate(after)).given()).isEmpty();
    }

    @Test
    void pinsChosenByHandStayAndTheRestJoinsThem() {
        Platform started =
                change(open(), new Edit.BindPins("spare", "lines", Map.of("value", List.of("N5"))));
        PinAssignment plan = PinAssignment.of(Shipped.elaborate(started));
        Platform after = EDITOR.apply(started, plan.asEdit());
        List<PinLine> spare =
                PinTable.of(Shipped.elaborate(after)).lines().stream()
                        .filter(line -> line.port().startsWith("spare"))
                        .toList();
        assertThat(spare).hasSize(3).noneMatch(PinLine::isOpen);
        assertThat(spare.getFirst().pin()).isEqualTo("N5");
        assertThat(spare).allMatch(line -> line.bank().name().equals("west"));
    }

    @Test
    void whatHasNoRoomIsNamed() {
        Platform large =
                change(
                        Shipped.demo(),
                        new Edit.AddBlock("wide", Shipped.GPIO, null),
                        new Edit.SetParameter("wide", "WIDTH", "32"));
        assertThat(PinAssignment.of(Shipped.elaborate(large)).homeless())
                .containsExactly("wide.lines");
    }

    @Test
    void theTableComesBackAsItWent() {
        ElaboratedPlatform before = Shipped.elaborate(open());
        Platform assigned = EDITOR.apply(open(), PinAssignment.of(before).asEdit());
        String table = PinCsv.write(Shipped.elaborate(assigned), "0");
        PinCsv read = PinCsv.read(before, table);
        assertThat(read.problems()).isEmpty();
        assertThat(EDITOR.apply(open(), read.edit())).isEqualTo(assigned);
        // What is so already is no change.
        assertThat(PinCsv.read(Shipped.elaborate(assigned), table))
                .isEqualTo(new PinCsv(null, List.of()));
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "name,pin;spare.value[0],A1|line 1: the first line names the columns",
                "port,pin;spare.value[9],N2|line 2: there is no port spare.value[9]",
                "port,pin;spare.value[0],Z99|line 2: TR36-60 has no pin Z99",
                "port,pin;spare.value[0],N2;spare.value[1],N2|line 3: pin N2 is given on line 2"
                        + " already",
                "port,pin;spare.value[0],N2;spare.value[0],N3|line 3: spare.value[0] has a pin on"
                        + " line 2",
                "port,pin;lamps.value[0],N2|by the board; give the port up there first",
                "port,pin;spare.value[0],N2|spare.value[1] has no pin; the lines of spare.lines"
                        + " come together"
            })
    void wrongLinesAreNamed(String table, String says) {
        PinCsv read = PinCsv.read(Shipped.elaborate(open()), table.replace(';', '\n'));
        assertThat(read.edit()).isNull();
        assertThat(read.problems().toString()).contains(says);
    }
}
