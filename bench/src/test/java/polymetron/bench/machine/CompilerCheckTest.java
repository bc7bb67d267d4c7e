package polymetron.bench.machine;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assumptions.assumeThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.TreeMap;
import java.util.stream.Stream;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import polymetron.Shipped;
import polymetron.bench.foreign.CompilerCheck;
import polymetron.bench.foreign.ForeignModels;
import polymetron.ownblock.OwnBlock;

/** What compilers say of blocks of others is handed on with its place, for each set of parameters. */
final class CompilerCheckTest {
    @TempDir private Path folder;
    private CompilerCheck check;

    @BeforeEach
    void find() {
        ForeignModels models = new ForeignModels(folder.resolve("models"));
        assumeThat(models.compilers()).isPresent();
        check = models.compilers().orElseThrow();
    }

    private CompilerCheck.Outcome of(OwnBlock block) throws InterruptedException {
        return check.of(block, Shipped.LIBRARY.hardware());
    }

    private static OwnBlock changed(OwnBlock block, String file, String from, String to) {
        TreeMap<String, String> files = new TreeMap<>(block.hardware());
        assertThat(files.get(file)).contains(from);
        files.put(file, files.get(file).replace(from, to));
        return new OwnBlock(block.type(), block.definition(), files, block.drivers());
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "strobe_unit.v",
                "wishing_well.v",
                "latch_box.sv",
                "step_coder.v",
                "tally_adder.vhd tally_box.vhd"
            })
    void soundBlocksHaveNoErrors(String files) throws IOException, InterruptedException {
        CompilerCheck.Outcome outcome = of(ForeignHdlRunsTest.block(files));
        assertThat(outcome.said()).noneMatch(CompilerCheck.Said::isError);
        assertThat(outcome.tools())
                .isEqualTo(
                        files.endsWith("vhd")
                                ? List.of("GHDL", "Verilator")
                                : List.of("Verilator"));
        try (Stream<Path> left = Files.list(folder.resolve("models"))) {
            assertThat(left).isEmpty();
        }
    }

    @Test
    void errorsHaveFileAndLine() throws IOException, InterruptedException {
        OwnBlock vhdl = ForeignHdlRunsTest.block("tally_adder.vhd tally_box.vhd");
        int line = line(vhdl.hardware().get("tally_adder.vhd"), "kept <= kept + 1;");
        assertThat(
                        of(changed(
                                        vhdl,
                                        "tally_adder.vhd",
                                        "kept <= kept + 1;",
                                        "kept <= kpt + 1;"))
                                .said())
                .anySatisfy(
                        each -> {
                            assertThat(each.isError()).isTrue();
                            assertThat(each.at()).isEqualTo("tally_adder.vhd:" + line);
                            assertThat(each.what()).contains("kpt");
                        });
        OwnBlock verilog = ForeignHdlRunsTest.block("strobe_unit.v");
        assertThat(
                        of(changed(
                                        verilog,
                                        "strobe_unit.v",
                                        "endmodule",
                                        "assign strobes = nowhere.x;\nendmodule"))
                                .said())
                .anySatisfy(
                        each -> {
                            assertThat(each.isError()).isTrue();
                            assertThat(each.at()).startsWith("strobe_unit.v:");
                        });
    }

    /** A name that is legal in Verilog, and a word of SystemVerilog. */
    @Test
    void aNameThatIsAWordIsExplained() throws IOException, InterruptedException {
        OwnBlock block = ForeignHdlRunsTest.block("step_coder.v");
        assertThat(of(changed(block, "step_coder.v", "previous", "before")).said())
                .anySatisfy(
                        each ->
                                assertThat(each.what())
                                        .contains("before is a word of SystemVerilog")
                                        .endsWith("so rename it"));
    }

    /** What was read wrongly of a port: here the module around it is made to expect another width. */
    @Test
    void anotherWidthThanWasReadIsSaid() throws IOException, InterruptedException {
        OwnBlock block = ForeignHdlRunsTest.block("tally_adder.vhd tally_box.vhd");
        OwnBlock wrong =
                changed(
                        block,
                        "tally_box.vhd",
                        "marks   : out std_logic_vector(LINES - 1 downto 0)",
                        "marks   : out std_logic_vector(LINES downto 0)");
        wrong = changed(wrong, "tally_box.vhd", "marks   <= kept;", "marks   <= '0' & kept;");
        assertThat(of(wrong).said())
                .anySatisfy(
                        each -> {
                            assertThat(each.at()).startsWith("tally_box_fitted.v:");
                            assertThat(each.what()).contains("WIDTH");
                        });
    }

    /** A function that never ends while the constants are worked out. */
    @Test
    void whatDoesNotComeToAnEndIsEnded() throws IOException, InterruptedException {
        OwnBlock block = ForeignHdlRunsTest.block("tally_adder.vhd tally_box.vhd");
        OwnBlock endless =
                changed(
                        block,
                        "tally_adder.vhd",
                        "  signal kept",
                        """
                        function never return natural is
                          variable n : natural := 0;
                        begin
                          while n < 5 loop
                            n := n mod 2;
                          end loop;
                          return n;
                        end function;
                        constant n : natural := never;
                        signal kept\
                        """);
        endless = changed(endless, "tally_adder.vhd", "kept + 1", "kept + n");
        check = check.endingAfter(8);
        // GHDL has an end of its own for it, or the sandbox has.
        List<String> ends = new ArrayList<>();
        try {
            of(endless).said().forEach(each -> ends.add(each.what()));
        } catch (BenchException limit) {
            ends.add(limit.getMessage());
        }
        assertThat(ends)
                .anyMatch(
                        each ->
                                each.contains("do not come to an end")
                                        || each.contains("ends with status"));
        try (Stream<Path> left = Files.list(folder.resolve("models"))) {
            assertThat(left).isEmpty();
        }
    }

    private static int line(String text, String what) {
        return 1
                + (int) text.substring(0, text.indexOf(what)).lines().count()
                - 1
                + (text.charAt(text.indexOf(what) - 1) == '\n' ? 1 : 0);
    }
}
