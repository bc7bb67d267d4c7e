package polymetron.clock;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.EnumSource;
import polymetron.Shipped;
import polymetron.edit.Edit;
import polymetron.edit.Editor;
import polymetron.elaborate.Domain;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.Elaborator;
import polymetron.finding.Checks;
import polymetron.finding.Grade;
import polymetron.library.BlockType;
import polymetron.library.BlockTypeDocument;
import polymetron.library.Capability;
import polymetron.library.Library;
import polymetron.library.Vlnv;
import polymetron.platform.ClockDomain;
import polymetron.platform.Platform;
import polymetron.serial.TwoWireTimes;

/** What follows from clocks, and what crosses between them. */
final class ClocksTest {
    private static final Capability.TwoWire ROLE = new Capability.TwoWire("LOW", "HIGH");

    private static final Editor EDITOR = new Editor(Shipped.LIBRARY);

    private static Platform station() {
        return Shipped.recipe("acquisition");
    }

    private static double actual(Platform platform, String block, String rate) {
        return DerivedRates.of(Shipped.elaborate(platform)).stream()
                .filter(each -> each.block().equals(block) && each.type().name().equals(rate))
                .findFirst()
                .orElseThrow()
                .actual();
    }

    private static Platform with(Platform platform, Edit... edits) {
        return EDITOR.apply(platform, new Edit.Several("change", List.of(edits)));
    }

    /** Common practice, no source: divider 8 from a 100 MHz reference gives 12.5 MHz. */
    @Test
    void theSerialClockOfTheConverterIsTwelveAndAHalfMegahertz() {
        assertThat(actual(station(), "ground_reader", "serial clock")).isEqualTo(12_500_000.0);
    }

    @Test
    void sampleRatesGoThroughTheStreams() {
        Platform platform = station();
        assertThat(actual(platform, "ground_reader", "sample rate of a channel")).isEqualTo(1000);
        assertThat(actual(platform, "ground_decimate", "sample rate of a channel")).isEqualTo(125);
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
        assertThat(actual(longer, "second", "sample rate of a channel")).isEqualTo(25);
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
        assertThat(actual(platform, "thermometer", "serial clock")).isCloseTo(hertz, within(1e-6));
        assertThat(actual(platform, "thermometer", "clock low")).isGreaterThanOrEqualTo(lowTime);
        assertThat(actual(platform, "thermometer", "clock high")).isGreaterThanOrEqualTo(highTime);
    }

    /** Counts for each mode are the shortest that keep all three limits of UM10204 (rev. 7, table 10). */
    @ParameterizedTest
    @EnumSource(TwoWireTimes.Mode.class)
    void countsKeepRateAndTimes(TwoWireTimes.Mode mode) {
        for (long clockHz : new long[] {12_000_000, 33_333_333, 50_000_000, 100_000_000}) {
            TwoWireTimes.Counts counts = new TwoWireTimes(ROLE, clockHz, 1, 1).countsFor(mode);
            TwoWireTimes times = new TwoWireTimes(ROLE, clockHz, counts.low(), counts.high());
            assertThat(times.violations()).as("%s at %s", mode, clockHz).isEmpty();
            assertThat(times.hertz()).isLessThanOrEqualTo(mode.highestHz() * 1.0001);
            assertThat(
                            new TwoWireTimes(ROLE, clockHz, counts.low(), counts.high() - 1).hertz()
                                            > mode.highestHz()
                                    || !new TwoWireTimes(
                                                    ROLE, clockHz, counts.low(), counts.high() - 1)
                                            .violations()
                                            .isEmpty())
                    .isTrue();
        }
    }

    /** A source that signals by an edge, as the shipped library has none. */
    @Test
    void anEdgeIntoASlowerDomainIsNotSafe() throws IOException {
        String text =
                new String(
                        Shipped.file("block-types/watchdog/block-type.json"),
                        StandardCharsets.UTF_8);
        BlockType edge =
                BlockTypeDocument.read(
                        "edge",
                        text.replace("polymetron:timer:watchdog:1.0", "own:timer:edge:1.0")
                                .replace("\"trigger\": \"high\"", "\"trigger\": \"edge\""));
        List<BlockType> types = new ArrayList<>(Shipped.LIBRARY.types());
        types.add(edge);
        Library library =
                new Library(
                        types,
                        Shipped.LIBRARY.boards(),
                        Shipped.LIBRARY.devices(),
                        Shipped.LIBRARY.recipes(),
                        Map.of());
        String source = edge.interrupts().getFirst().name();
        Editor editor = new Editor(library);
        ElaboratedPlatform before = Shipped.elaborate(station());
        Domain main = before.domains().iterator().next();
        PllSetting setting =
                new PllSearch(
                                before.device().plls(),
                                main.frequencyHz(),
                                List.of(new PllWish("fast", 200_000_000, 0)))
                        .candidates(1)
                        .getFirst();
        Platform platform =
                editor.apply(
                        station(),
                        new Edit.Several(
                                "edge",
                                List.of(
                                        ClockWishes.edit(before, main, List.of(setting)),
                                        new Edit.AddBlock("edge", edge.identity(), null),
                                        new Edit.SetDomain("edge", "clk", "fast"),
                                        new Edit.ConnectInterrupt(
                                                "edge", source, "interrupts", "inputs", 20))));
        assertThat(Checks.run(new Elaborator(library).elaborate(platform)))
                .filteredOn(finding -> finding.rule().equals("interrupt-edge-lost"))
                .extracting(finding -> finding.subject())
                .containsExactly("edge." + source);
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
    void aResetThatABlockMakesComesAfterWhatTheBlockWaitsFor() {
        Platform platform =
                with(
                        station(),
                        new Edit.AddBlock(
                                "late",
                                Vlnv.parse("polymetron:infrastructure:reset-synchroniser:1.0"),
                                null));
        var late = Shipped.elaborate(platform).block("late").orElseThrow();
        String source = "late." + late.type().resetOutputs().getFirst().name();
        Platform behind =
                with(
                        platform,
                        new Edit.SetDomain("late", late.type().clocks().getFirst().name(), "main"),
                        new Edit.AddDomain(new ClockDomain("after", "oscillator", source)));
        assertThat(ResetStep.of(Shipped.elaborate(behind)))
                .extracting(step -> step.domain().name(), ResetStep::order, ResetStep::activeLow)
                .containsExactly(
                        org.assertj.core.groups.Tuple.tuple("main", 1, true),
                        org.assertj.core.groups.Tuple.tuple("after", 2, null));
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
