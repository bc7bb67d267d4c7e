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
import polymetron.finding.Finding;
import polymetron.platform.PinSetting;
import polymetron.platform.Platform;

public final class PinsTest {
    /** Rules that the tests here provoke. */
    public static final List<String> PROVOKED =
            List.of("pin-standard", "pin-drive", "pin-pair", "pin-setting-idle", "clock-pin");

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
        assertThat(plan.unplaceable()).isEmpty();
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
        assertThat(PinAssignment.of(Shipped.elaborate(large)).unplaceable())
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

    private static Platform set(Platform platform, PinSetting setting) {
        return change(platform, new Edit.SetPins("spare", "lines", "value", setting));
    }

    private static final PinSetting PAIR = new PinSetting("LVDS25", null, null, null, null);

    /** A differential standard takes pairs in a bank of its voltage; a fourth line makes two pairs of three. */
    @Test
    void differentialLinesGetPairsInABankOfTheirVoltage() {
        Platform four = set(change(open(), new Edit.SetParameter("spare", "WIDTH", "4")), PAIR);
        Platform after = EDITOR.apply(four, PinAssignment.of(Shipped.elaborate(four)).asEdit());
        ElaboratedPlatform elaborated = Shipped.elaborate(after);
        List<PinLine> spare =
                PinTable.of(elaborated).lines().stream()
                        .filter(line -> line.port().startsWith("spare"))
                        .sorted((one, other) -> one.line() - other.line())
                        .toList();
        for (int at = 0; at < 4; at += 2) {
            PinLine positive = spare.get(at);
            assertThat(positive.bank().voltage()).isEqualTo("2.5 V");
            assertThat(positive.bank().isPair(positive.pin(), spare.get(at + 1).pin())).isTrue();
        }
        assertThat(rules(after)).doesNotContain("pin-pair", "pin-standard");

        List<String> pins = spare.stream().map(PinLine::pin).toList();
        Platform crossed =
                change(
                        after,
                        new Edit.BindPins(
                                "spare",
                                "lines",
                                Map.of(
                                        "value",
                                        List.of(
                                                pins.get(0),
                                                pins.get(2),
                                                pins.get(1),
                                                pins.get(3)))));
        assertThat(rules(crossed)).contains("pin-pair");
        // What was set stays with the port when it gets other pins.
        assertThat(crossed.block("spare").orElseThrow().outward().get("lines").settings())
                .containsEntry("value", PAIR);
    }

    @Test
    void whatThePinOrTheBankCannotDoIsFound() {
        Platform assigned =
                EDITOR.apply(open(), PinAssignment.of(Shipped.elaborate(open())).asEdit());
        assertThat(rules(set(assigned, new PinSetting("LVCMOS99", null, null, null, null))))
                .contains("pin-standard");
        String bank =
                PinTable.of(Shipped.elaborate(assigned)).lines().stream()
                        .filter(line -> line.port().startsWith("spare"))
                        .findFirst()
                        .orElseThrow()
                        .bank()
                        .voltage();
        String wrong = bank.equals("3.3 V") ? "LVCMOS18" : "LVCMOS33";
        assertThat(rules(set(assigned, new PinSetting(wrong, null, null, null, null))))
                .contains("pin-standard");
        assertThat(rules(set(assigned, new PinSetting(null, 7, null, null, null))))
                .contains("pin-drive");
        Platform inputs = change(assigned, new Edit.SetParameter("spare", "DIRECTION", "in"));
        assertThat(rules(set(inputs, new PinSetting(null, null, PinSetting.Slew.FAST, null, null))))
                .contains("pin-setting-idle");
        assertThat(rules(assigned)).noneMatch(rule -> rule.startsWith("pin-"));
    }

    @Test
    void electricalColumnsAreReadForWholePorts() {
        Platform assigned =
                EDITOR.apply(open(), PinAssignment.of(Shipped.elaborate(open())).asEdit());
        PinCsv read =
                PinCsv.read(
                        Shipped.elaborate(assigned),
                        "port,pin,drive,slew,pull\nspare.value[0],,12,fast,\n"
                                + "spare.value[1],,12,fast,\n");
        assertThat(read.problems()).isEmpty();
        PinLine line =
                PinTable.of(Shipped.elaborate(EDITOR.apply(assigned, read.edit()))).lines().stream()
                        .filter(each -> each.port().equals("spare.value[2]"))
                        .findFirst()
                        .orElseThrow();
        assertThat(line.setting().drive()).isEqualTo(12);
        assertThat(line.setting().slew()).isEqualTo(PinSetting.Slew.FAST);
        assertThat(
                        PinCsv.read(
                                        Shipped.elaborate(assigned),
                                        "port,pin,drive,pull\nspare.value[0],,many,\n"
                                                + "spare.value[1],,8,sideways\n")
                                .problems())
                .containsExactly(
                        "line 2: a drive is a number of mA, not 'many'",
                        "line 3: a pull is none, up, down, keeper, not 'sideways'");
    }

    private static List<String> rules(Platform platform) {
        return Checks.run(Shipped.elaborate(platform)).stream().map(Finding::rule).toList();
    }
}
