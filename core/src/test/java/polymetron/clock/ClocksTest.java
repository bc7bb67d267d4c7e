package polymetron.clock;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import polymetron.Shipped;
import polymetron.edit.Edit;
import polymetron.edit.Editor;
import polymetron.elaborate.Domain;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.finding.Checks;
import polymetron.finding.Grade;
import polymetron.library.Vlnv;
import polymetron.platform.ClockDomain;
import polymetron.platform.Platform;

/** What follows from clocks, and what crosses between them. */
final class ClocksTest {
    private static final Editor EDITOR = new Editor(Shipped.LIBRARY);

    private static Platform station() {
        return Shipped.recipe("acquisition");
    }

    private static double obtained(Platform platform, String block, String rate) {
        return DerivedRates.of(Shipped.elaborate(platform)).stream()
                .filter(each -> each.block().equals(block) && each.type().name().equals(rate))
                .findFirst()
                .orElseThrow()
                .obtained();
    }

    private static Platform with(Platform platform, Edit... edits) {
        return EDITOR.apply(platform, new Edit.Several("change", List.of(edits)));
    }

    /** Common practice, no source: divider 8 from a 100 MHz reference gives 12.5 MHz. */
    @Test
    void theSerialClockOfTheConverterIsTwelveAndAHalfMegahertz() {
        assertThat(obtained(station(), "ground_reader", "serial clock")).isEqualTo(12_500_000.0);
    }

    @Test
    void sampleRatesGoThroughTheStreams() {
        Platform platform = station();
        assertThat(obtained(platform, "ground_reader", "sample rate of a channel")).isEqualTo(1000);
        assertThat(obtained(platform, "ground_decimate", "sample rate of a channel"))
                .isEqualTo(125);
        Platform longer =
                with(
                        platform,
                        new Edit.AddBlock(
                                "second",
                                Vlnv.parse("polymetron:stream:decimating-filter:1.0"),
                                null),
                        new Edit.SetParameter("second", "RATE", "5"),
                        new Edit.DisconnectStream("ground_queue", "out"),
                        new Edit.ConnectStream("ground_queue", "out", "second", "in"));
        assertThat(obtained(longer, "second", "sample rate of a channel")).isEqualTo(25);
    }

    /** The times that UM10204 (rev. 7, table 10) asks for at least: low 4.7, 1.3, 0.5 µs, high 4, 0.6, 0.26 µs. */
    @ParameterizedTest
    @CsvSource({
        "520, 480, 100000, 4.7e-6, 4.0e-6",
        "150, 100, 400000, 1.3e-6, 0.6e-6",
        "60, 40, 1000000, 0.5e-6, 0.26e-6"
    })
    void busClocksKeepTheirTimes(
            String low, String high, double hertz, double lowTime, double highTime) {
        Platform platform =
                with(
                        station(),
                        new Edit.SetParameter("thermometer", "LOW", low),
                        new Edit.SetParameter("thermometer", "HIGH", high));
        assertThat(obtained(platform, "thermometer", "serial clock"))
                .isCloseTo(hertz, within(1e-6));
        assertThat(obtained(platform, "thermometer", "clock low")).isGreaterThanOrEqualTo(lowTime);
        assertThat(obtained(platform, "thermometer", "clock high"))
                .isGreaterThanOrEqualTo(highTime);
    }

    @Test
    void wishedClocksBecomePllsAndDomains() {
        ElaboratedPlatform before = Shipped.elaborate(station());
        Domain source = before.domains().iterator().next();
        List<PllWish> wishes =
                List.of(new PllWish("slow", 25_000_000, 0), new PllWish("fast", 200_000_000, 0));
        PllPlan plan =
                PllPlan.of(
                                before.device().plls(),
                                source.frequencyHz(),
                                wishes,
                                ClockWishes.freePlls(before))
                        .orElseThrow();
        Platform after = EDITOR.apply(station(), ClockWishes.edit(before, source, plan.plls()));
        ElaboratedPlatform now = Shipped.elaborate(after);
        assertThat(now.domainIndex().get("slow").frequencyHz()).isEqualTo(25_000_000);
        assertThat(now.domainIndex().get("fast").frequencyHz()).isEqualTo(200_000_000);
        assertThat(now.domainIndex().get("slow").domain().wantedHz()).isEqualTo(25_000_000L);
        assertThat(ClockWishes.freePlls(now)).isEqualTo(ClockWishes.freePlls(before) - 1);
        assertThat(Checks.run(now)).noneMatch(finding -> finding.grade() == Grade.ERROR);
    }

    @Test
    void everyCrossingIsListedWithWhatMakesItSafe() {
        ClockDomain slow = new ClockDomain("slow", "oscillator", "reset_button");
        List<Edit> edits = new ArrayList<>();
        edits.add(new Edit.AddDomain(slow));
        edits.add(new Edit.SetDomain("console", "clk", "slow"));
        edits.add(new Edit.SetDomain("ground_queue", "clk", "slow"));
        List<Crossing> crossings =
                Crossings.of(Shipped.elaborate(with(station(), edits.toArray(Edit[]::new))));
        assertThat(crossings)
                .filteredOn(each -> each.sort() == Crossing.Sort.BUS)
                .extracting(Crossing::what)
                .contains("console.registers on bus peripherals");
        assertThat(crossings)
                .filteredOn(each -> each.sort() == Crossing.Sort.INTERRUPT)
                .extracting(Crossing::what, Crossing::isSafe)
                .contains(
                        org.assertj.core.groups.Tuple.tuple(
                                "console.irq to interrupts.inputs", true));
        assertThat(crossings)
                .filteredOn(each -> each.sort() == Crossing.Sort.STREAM)
                .extracting(Crossing::isSafe)
                .contains(false);
        assertThat(crossings).filteredOn(each -> each.sort() == Crossing.Sort.RESET).hasSize(2);
    }
}
