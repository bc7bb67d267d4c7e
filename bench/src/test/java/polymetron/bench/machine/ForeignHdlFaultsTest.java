package polymetron.bench.machine;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assumptions.assumeThat;

import java.nio.file.Path;
import java.util.TreeMap;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;
import polymetron.bench.foreign.ForeignModels;
import polymetron.bench.hart.MemoryShare;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.ownblock.OwnBlock;
import polymetron.software.SoftwareView;

/** Verilog that fails on the bench: the message says what and where, and the bench survives. */
@Timeout(180)
final class ForeignHdlFaultsTest {
    @TempDir private Path folder;

    /** Not where a machine forbids the namespaces of the sandbox. */
    @BeforeEach
    void isPossible() {
        assumeThat(new ForeignModels(folder).isPossible()).isTrue();
    }

    /** The wishing well with something in place of what makes its lines. */
    private Machine machine(String from, String to) throws Exception {
        OwnBlock well = ForeignHdlRunsTest.block("wishing_well.v");
        TreeMap<String, String> files = new TreeMap<>(well.hardware());
        assertThat(files.get("wishing_well.v")).contains(from);
        files.computeIfPresent("wishing_well.v", (name, text) -> text.replace(from, to));
        OwnBlock changed = new OwnBlock(well.type(), well.definition(), files, well.drivers());
        ElaboratedPlatform platform = OwnBlockRunsTest.platform(changed, "shown_o");
        return new Machine(
                SoftwareView.of(platform),
                MemoryShare.ample(),
                new ForeignModels(folder.resolve("models")));
    }

    @Test
    void verilogThatCannotBeBuiltIsNamedWithItsLine() {
        assertThatThrownBy(
                        () ->
                                machine(
                                        "assign shown_o = word[3:0];",
                                        "assign shown_o = nothing + ;"))
                .isInstanceOf(BenchException.class)
                .hasMessageContaining("own: its HDL cannot be made into a model")
                .hasMessageContaining("wishing_well.v:16");
    }

    /** A loop without time never leaves the cycle that it is in. */
    @Test
    void verilogThatNeverEndsIsEnded() throws Exception {
        try (Machine machine =
                machine(
                        "assign shown_o = word[3:0];",
                        """
                        assign shown_o = word[3:0];
                        always @(posedge clk_i) while (word == 32'd7) $write("x");
                        """)) {
            var own = machine.model("own").orElseThrow();
            own.advance(100);
            own.write(0, 6, -1);
            assertThat(own.read(0)).isEqualTo(6);
            assertThatThrownBy(() -> own.write(0, 7, -1))
                    .isInstanceOf(BenchException.class)
                    .hasMessageStartingWith(
                            "own: its Verilog does not come to an end within a cycle, or needs more"
                                    + " than it may");
        }
    }

    @Test
    void verilogThatNeedsTooMuchIsEnded() {
        assertThatThrownBy(
                        () ->
                                machine(
                                                "assign shown_o = word[3:0];",
                                                "reg [31:0] much [0:(1<<28)-1]; always @(posedge"
                                                        + " clk_i) much[word[27:0]] <= word; assign"
                                                        + " shown_o = much[word[27:0]][3:0];")
                                        .close())
                .isInstanceOf(BenchException.class)
                .hasMessageContaining("needs more than it may");
    }

    @Test
    void aBusThatNeverAnswersIsSaid() throws Exception {
        try (Machine machine = machine("wb_cyc_i & wb_stb_i & ~wb_ack_o;", "1'b0;")) {
            var own = machine.model("own").orElseThrow();
            assertThatThrownBy(() -> own.read(4))
                    .hasMessage(
                            "own does not answer a read of offset 0x4: a processor would wait"
                                    + " forever");
        }
    }
}
