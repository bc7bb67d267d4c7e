package polymetron.stream;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import polymetron.Shipped;
import polymetron.edit.Edit;
import polymetron.edit.Editor;
import polymetron.edit.RejectedEdit;
import polymetron.elaborate.InterfaceRef;
import polymetron.elaborate.StreamTraits;
import polymetron.finding.Checks;
import polymetron.finding.Grade;
import polymetron.library.Vlnv;
import polymetron.platform.ClockDomain;
import polymetron.platform.Platform;

final class StreamJoinTest {
    private final Editor editor = new Editor(Shipped.LIBRARY);
    private Platform platform = Platform.empty("Streams", Shipped.BOARD);

    StreamJoinTest() {
        for (String domain : List.of("main", "other")) {
            apply(new Edit.AddDomain(new ClockDomain(domain, "oscillator", "reset_button")));
        }
    }

    private void apply(Edit edit) {
        platform = editor.apply(platform, edit);
    }

    private void fifo(String name, int width, String domain) {
        Vlnv type = Vlnv.parse("polymetron:stream:fifo:1.0");
        apply(new Edit.AddBlock(name, type, Map.of("WIDTH", "" + width)));
        apply(new Edit.SetDomain(name, "clk", domain));
        apply(new Edit.SetDomain(name, "rst", domain));
    }

    private StreamJoin join(String from, String to) {
        StreamNet net = new StreamNet(Shipped.elaborate(platform));
        StreamJoin join =
                StreamJoin.of(
                        net,
                        net.source(InterfaceRef.parse(from)).orElseThrow(),
                        net.sink(InterfaceRef.parse(to)).orElseThrow());
        apply(new Edit.Several("join", join.edits()));
        return join;
    }

    private List<String> errors() {
        return Checks.run(Shipped.elaborate(platform)).stream()
                .filter(finding -> finding.grade() == Grade.ERROR)
                .map(finding -> finding.what())
                .toList();
    }

    @Test
    void putsWhatIsMissingBetweenTheEnds() {
        fifo("from", 64, "main");
        fifo("to", 16, "other");
        assertThat(join("from.out", "to.in").parts())
                .containsExactly(
                        "width adapter resize, 64 → 16 bit", "clock crossing cross, main → other");
        assertThat(errors()).isEmpty();
        StreamNet net = new StreamNet(Shipped.elaborate(platform));
        assertThat(net.feeder(InterfaceRef.parse("to.in")).orElseThrow().ref())
                .hasToString("cross.out");
    }

    /** Common practice, no source: a splitter is useful from one up to eight outputs. */
    @Test
    void splitsForEightSinksAndNoMore() {
        fifo("from", 32, "main");
        for (int sink = 0; sink < 9; sink++) {
            fifo("to" + sink, 32, "main");
        }
        for (int sink = 0; sink < 8; sink++) {
            join("from.out", "to" + sink + ".in");
        }
        assertThat(errors()).isEmpty();
        assertThat(platform.block("split").orElseThrow().parameters())
                .containsEntry("OUTPUTS", "8");
        assertThat(platform.blocks()).hasSize(11);
        assertThatThrownBy(() -> join("from.out", "to8.in"))
                .isInstanceOf(RejectedEdit.class)
                .hasMessageContaining("already feeds 8 sinks");
    }

    @Test
    void saysWhatNoAdapterDoes() {
        fifo("from", 24, "main");
        fifo("to", 32, "main");
        assertThatThrownBy(() -> join("from.out", "to.in"))
                .isInstanceOf(RejectedEdit.class)
                .hasMessageContaining("no adapter makes 32-bit words of 24-bit words");
    }

    @Test
    void marksAndSamplesAreHandedOnThroughPlumbing() {
        apply(
                new Edit.AddBlock(
                        "reader", Vlnv.parse("polymetron:stream:converter-reader:1.0"), null));
        apply(new Edit.SetDomain("reader", "clk", "main"));
        fifo("first", 32, "main");
        fifo("second", 32, "main");
        join("reader.samples", "first.in");
        join("first.out", "second.in");
        assertThat(Shipped.elaborate(platform).streams())
                .allSatisfy(
                        link ->
                                assertThat(link.carries())
                                        .isEqualTo(new StreamTraits(true, false, 24)));
    }

    @Test
    void aCircleCarriesNothingAndIsNotProposed() {
        fifo("first", 32, "main");
        fifo("second", 32, "main");
        join("first.out", "second.in");
        StreamNet net = new StreamNet(Shipped.elaborate(platform));
        assertThat(
                        net.leadsBack(
                                net.source(InterfaceRef.parse("second.out")).orElseThrow(),
                                net.sink(InterfaceRef.parse("first.in")).orElseThrow()))
                .isTrue();
        join("second.out", "first.in");
        assertThat(Shipped.elaborate(platform).streams())
                .allSatisfy(link -> assertThat(link.carries()).isEqualTo(StreamTraits.NONE));
    }
}
