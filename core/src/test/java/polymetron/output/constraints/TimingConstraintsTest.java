package polymetron.output.constraints;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import polymetron.Shipped;
import polymetron.clock.ClockWishes;
import polymetron.clock.PllPlan;
import polymetron.clock.PllWish;
import polymetron.edit.Edit;
import polymetron.edit.Editor;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.output.HandoffFile;
import polymetron.output.handoff.Handoff;
import polymetron.outside.Tool;
import polymetron.platform.ClockDomain;
import polymetron.platform.Platform;

/** The constraints are read back by a Tcl interpreter, as every timing analyser does it. */
final class TimingConstraintsTest {
    private static final String READER =
            """
            set ports 0
            proc get_ports {name} { incr ::ports; return "port $name" }
            proc get_pins {name} { return "pin $name" }
            proc create_clock {n name p period at} { puts "clock $name $period $at" }
            proc create_generated_clock {n name s source m times d over at} { puts "made $name $times/$over $at" }
            proc set_clock_groups {args} { puts "groups $args" }
            proc set_input_delay {c clock delay at} { puts "in $clock $delay" }
            proc set_output_delay {c clock delay at} { puts "out $clock $delay" }
            source timing.tcl
            """;

    private static String read(ElaboratedPlatform platform, Path folder) {
        HandoffFile file =
                Handoff.of(platform).files().stream()
                        .filter(each -> each.path().endsWith("_timing.tcl"))
                        .findFirst()
                        .orElseThrow();
        Tool.write(folder, "timing.tcl", file.bytes());
        Tool.write(folder, "read.tcl", READER);
        return Tool.run(folder, "tclsh", "read.tcl");
    }

    @Test
    void clocksComeBackWithTheirFrequencies(@TempDir Path folder) {
        Platform station = Shipped.recipe("acquisition");
        ElaboratedPlatform before = Shipped.elaborate(station);
        var source = before.domains().iterator().next();
        PllPlan plan =
                PllPlan.of(
                                before.device().plls(),
                                source.frequencyHz(),
                                List.of(new PllWish("slow", 12_500_000, 0)),
                                1)
                        .orElseThrow();
        ElaboratedPlatform platform =
                Shipped.elaborate(
                        new Editor(Shipped.LIBRARY)
                                .apply(station, ClockWishes.edit(before, source, plan.plls())));
        String read = read(platform, folder);
        assertThat(read).contains("clock oscillator 10.000000 port oscillator");
        Matcher made = Pattern.compile("made pll_out0 (\\d+)/(\\d+) pin pll/out0").matcher(read);
        assertThat(made.find()).isTrue();
        assertThat(100_000_000.0 * Long.parseLong(made.group(1)) / Long.parseLong(made.group(2)))
                .isEqualTo(12_500_000.0);
        assertThat(read).contains("in oscillator 0.000").contains("out oscillator 0.000");
        assertThat(read).doesNotContain("groups");
    }

    @Test
    void clocksOfDifferentOscillatorsAreAsynchronous(@TempDir Path folder) {
        Platform lock =
                new Editor(Shipped.LIBRARY)
                        .apply(
                                Shipped.recipe("lock"),
                                new Edit.AddDomain(new ClockDomain("side", "oscillator", null)));
        String read = read(Shipped.elaborate(lock), folder);
        assertThat(read)
                .contains("clock complex_clock0 10.000000 pin complex/clock0")
                .contains("clock oscillator 10.000000 port oscillator")
                .contains("groups -asynchronous -group complex_clock0 -group oscillator");
    }
}
