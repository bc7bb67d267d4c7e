package polymetron.bench.machine;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assumptions.assumeThat;

import java.io.IOException;
import java.nio.file.Path;
import java.util.TreeMap;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import polymetron.Shipped;
import polymetron.bench.foreign.ForeignModels;
import polymetron.bench.foreign.SynthesisedSize;
import polymetron.ownblock.BlockFromHdl;
import polymetron.ownblock.OwnBlock;

/** What synthesis makes of blocks of which it is known what is in them. */
final class SynthesisedSizeTest {
    @TempDir private Path folder;

    /** Not where a machine forbids the namespaces of the sandbox. */
    @BeforeEach
    void isPossible() {
        assumeThat(new ForeignModels(folder).sizes()).isPresent();
    }

    private SynthesisedSize.Outcome size(OwnBlock block) throws InterruptedException {
        return new ForeignModels(folder).sizes().orElseThrow().of(block, Shipped.LIBRARY);
    }

    private static OwnBlock block(String name, String text) {
        TreeMap<String, String> files = new TreeMap<>();
        files.put(name, text);
        BlockFromHdl found = BlockFromHdl.of(files, null, "bellworks");
        assertThat(found.problems()).isEmpty();
        return found.block();
    }

    /** 16 flip-flops, an adder-free multiplier, 256 words of 8 bits, and a table for each of four outputs. */
    private static final String KNOWN =
            """
            module known (
                input wire clk, input wire [15:0] a, input wire [15:0] b, output reg [15:0] kept,
                output wire [31:0] product, input wire [7:0] place, input wire [7:0] value, input wire store,
                output reg [7:0] found, output wire [3:0] both
            );
                reg [7:0] words [0:255];
                assign product = a * b;
                assign both = a[3:0] & b[3:0];
                always @(posedge clk) begin
                    kept <= a;
                    if (store) words[place] <= value;
                    found <= words[place];
                end
            endmodule
            """;

    @Test
    void whatIsInABlockIsCounted() throws InterruptedException {
        SynthesisedSize.Outcome outcome = size(block("known.v", KNOWN));
        assertThat(outcome.made().multipliers()).isEqualTo(1);
        assertThat(outcome.made().lookupTables()).isEqualTo(4);
        // What a memory gives is registered in it, or beside it.
        assertThat(outcome.made().flipFlops()).isIn(16L, 24L);
        assertThat(outcome.memoryBits()).isEqualTo(2048);
        assertThat(outcome.withRegisters()).isFalse();
    }

    /** The bank of a block with registers is in it: at least a flip-flop for each bit that software keeps. */
    @Test
    void registersAreInIt() throws IOException, InterruptedException {
        SynthesisedSize.Outcome outcome = size(ForeignHdlRunsTest.block("strobe_unit.v"));
        assertThat(outcome.withRegisters()).isTrue();
        assertThat(outcome.made().flipFlops()).isGreaterThan(64);
        assertThat(outcome.made().lookupTables()).isPositive();
    }

    @Test
    void whatCannotBeMadeSaysWhere() {
        String wrong = KNOWN.replace("assign both = a[3:0]", "assign both = nothing(a[3:0])");
        assertThatThrownBy(() -> size(block("known.v", wrong)))
                .hasMessageContaining("known.v:8")
                .hasMessageContaining("nothing");
    }
}
