package polymetron.bench.machine;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assumptions.assumeThat;

import java.io.IOException;
import java.nio.file.Path;
import java.util.TreeMap;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import polymetron.Shipped;
import polymetron.bench.foreign.RegisterSelfTest;
import polymetron.bench.foreign.SharedModels;
import polymetron.ownblock.OwnBlock;
import polymetron.ownblock.OwnBlockDocument;

/** The self-test of registers finds what is wrong in HDL, and nothing where nothing is. */
@Timeout(180)
final class RegisterSelfTestTest {
    private static final String REGISTERS =
            """
            "registers": [
              { "name": "LEVEL", "explains": "", "fields": [
                { "name": "LINES", "width": 4, "software": "read-write", "explains": "" },
                { "name": "REST", "lowBit": 4, "width": 28, "software": "read-write", "explains": "" } ] },
              { "name": "WRITES", "offset": 4, "explains": "", "fields": [
                { "name": "NUMBER", "width": 32, "software": "read-only", "hardware": "count", "explains": "" } ] }
            """;

    @TempDir private Path folder;

    /** Not where a machine forbids the namespaces of the sandbox. */
    @BeforeEach
    void isPossible() {
        assumeThat(SharedModels.get().isPossible()).isTrue();
    }

    private RegisterSelfTest.Outcome test(OwnBlock block) {
        return new RegisterSelfTest(SharedModels.get()).of(block, Shipped.LIBRARY);
    }

    /** The strobe unit with its registers described, a change in its HDL and more registers. */
    private static OwnBlock unit(String from, String to, String more) throws IOException {
        OwnBlock unit = ForeignHdlRunsTest.block("strobe_unit.v");
        String text =
                OwnBlockDocument.write(unit)
                        .replaceFirst("\"defaultName\"", REGISTERS + more + "], \"defaultName\"");
        assertThat(text).contains("WRITES\", \"offset");
        OwnBlock described = OwnBlockDocument.read("strobe_unit", text);
        TreeMap<String, String> files = new TreeMap<>(described.hardware());
        assertThat(files.get("strobe_unit.v")).contains(from);
        files.computeIfPresent("strobe_unit.v", (name, hdl) -> hdl.replace(from, to));
        return new OwnBlock(described.type(), described.definition(), files, described.drivers());
    }

    @ParameterizedTest
    @ValueSource(longs = {4, 5})
    void whatIsMadeFromTheRegistersIsAsDescribed(long seed) {
        RegisterSelfTest.Outcome outcome = test(RandomOwnBlockTest.block(seed));
        assertThat(outcome.different()).isEmpty();
        assertThat(outcome.accesses()).isGreaterThan(100);
    }

    @Test
    void handwrittenHdlIsAsDescribed() throws IOException {
        RegisterSelfTest.Outcome outcome = test(unit("level <= 32'd0", "level <= 32'd0", ""));
        assertThat(outcome.different()).isEmpty();
        assertThat(outcome.left()).containsExactly("WRITES.NUMBER");
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "level <= 32'd0; | level <= 32'd8; | LEVEL | LINES is 0x00000008 after reset;"
                        + " described is 0x00000000",
                "if (s_axi_wstrb[lane]) | if (1) | LEVEL | after byte 0 alone is written",
                "s_axi_rdata <= s_axi_araddr[3:2] == 2'd0 ? level : | s_axi_rdata <="
                        + " s_axi_araddr[3:2] == 2'd0 ? {2'd0, level[29:0]} : | LEVEL | REST is"
                        + " 0x3FFFFFFF after 0xFFFFFFFF is written",
                "assign s_axi_arready = does_read | assign s_axi_arready = 1'b0 | LEVEL | a read is"
                        + " not answered: a processor would wait forever"
            })
    void whatTheHdlDoesOtherwiseIsSaid(String from, String to, String register, String what)
            throws IOException {
        assertThat(test(unit(from, to, "")).different())
                .anySatisfy(
                        each -> {
                            assertThat(each.register()).isEqualTo(register);
                            assertThat(each.what()).contains(what);
                        });
    }

    /** Two registers where the HDL looks at one bit of the address less than it takes to tell them apart. */
    @Test
    void anAddressBitThatIsNotLookedAtIsSaid() throws IOException {
        String again =
                ", { \"name\": \"AGAIN\", \"offset\": 8, \"explains\": \"\", \"fields\": [ {"
                        + " \"name\": \"ALL\", \"width\": 32, \"software\": \"read-write\","
                        + " \"explains\": \"\" } ] }";
        OwnBlock block = unit("_axi_awaddr[3:2] == 2'd0", "_axi_awaddr[2] == 1'd0", again);
        TreeMap<String, String> files = new TreeMap<>(block.hardware());
        files.computeIfPresent(
                "strobe_unit.v",
                (name, hdl) -> hdl.replace("_axi_araddr[3:2] == 2'd0", "_axi_araddr[2] == 1'd0"));
        OwnBlock aliased = new OwnBlock(block.type(), block.definition(), files, block.drivers());
        assertThat(test(aliased).different())
                .singleElement()
                .satisfies(
                        each -> {
                            assertThat(each.register()).isEqualTo("LEVEL");
                            assertThat(each.what())
                                    .endsWith(
                                            "It is what was written to AGAIN: are all bits of the"
                                                    + " address looked at?");
                        });
    }

    /** 64 bits that the HDL has as two words, each by itself. */
    @Test
    void halvesThatCountByThemselvesAreSaid() throws IOException {
        OwnBlock unit = unit("level", "level", "");
        String text =
                OwnBlockDocument.write(unit)
                        .replaceFirst("\"LEVEL\",", "\"BOTH\", \"width\": 64, \"whole\": true,")
                        .replaceFirst(
                                "\"WRITES\",\\s*\"offset\"\\s*:\\s*4", "\"WRITES\", \"offset\": 8");
        assertThat(test(OwnBlockDocument.read("strobe_unit", text)).different())
                .anySatisfy(
                        each -> {
                            assertThat(each.register()).isEqualTo("BOTH");
                            assertThat(each.what())
                                    .contains("while only this half of it is written");
                        });
    }

    @Test
    void aBlockWithoutRegistersIsRefused() throws IOException {
        assertThatThrownBy(() -> test(ForeignHdlRunsTest.block("strobe_unit.v")))
                .hasMessage("no registers are described yet");
    }
}
