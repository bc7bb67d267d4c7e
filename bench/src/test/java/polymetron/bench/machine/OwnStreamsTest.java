package polymetron.bench.machine;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assumptions.assumeThat;

import java.io.IOException;
import java.math.BigInteger;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.TreeMap;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import polymetron.Shipped;
import polymetron.bench.block.OwnBlockModel;
import polymetron.bench.block.StreamBlock;
import polymetron.bench.foreign.ForeignModels;
import polymetron.bench.foreign.SharedModels;
import polymetron.bench.hart.MemoryShare;
import polymetron.bench.stream.SteppedElement;
import polymetron.bench.stream.StreamWord;
import polymetron.bus.Protocol;
import polymetron.edit.Edit;
import polymetron.edit.Editor;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.Elaborator;
import polymetron.library.Library;
import polymetron.output.image.ProgramImage;
import polymetron.ownblock.OwnBlock;
import polymetron.ownblock.OwnBlockChecks;
import polymetron.ownblock.OwnBlockDocument;
import polymetron.platform.Platform;
import polymetron.software.SoftwareView;
import polymetron.wiring.WiringPlan;

/**
 * Blocks of one's own with streams, between the two sides of a DMA: one from a file of Verilog without registers, whose signals go
 * straight through, and one with registers that makes four words of one. On the bench their HDL runs, and programs find the same
 * words as in simulation.
 */
final class OwnStreamsTest {
    private static final String REPEATER =
            """
            {
              "format": "polymetron-own-block/1",
              "definition": {
                "format": "polymetron-block-type/2", "identity": "bellworks:stream:repeater:1.0", "kind": "stream",
                "title": "Repeater", "summary": "Repeats words", "description": "It repeats.", "defaultName": "repeater",
                "clocks": [{ "name": "clk" }], "resets": [{ "name": "rst", "clock": "clk" }],
                "busInterfaces": [{ "name": "registers", "role": "target", "protocols": ["apb"], "dataWidth": 32,
                  "size": 4096, "usage": "registers", "executable": false }],
                "streams": [{ "name": "in", "end": "sink", "dataWidth": 32 },
                  { "name": "out", "end": "source", "dataWidth": 32, "packets": 1 }],
                "registers": [
                  { "name": "KEY", "explains": "", "fields": [
                    { "name": "VALUE", "width": 32, "software": "read-write", "explains": "added to each" }] },
                  { "name": "WORDS", "explains": "", "fields": [
                    { "name": "COUNT", "width": 32, "software": "read-only", "hardware": "count", "explains": "taken" }] }
                ],
                "resources": { "lookupTables": 99, "flipFlops": 99, "multipliers": 0 },
                "hardware": { "module": "repeater", "files": ["repeater.v"] }, "software": {}
              },
              "hardware": [{ "name": "repeater.v", "lines": [] }]
            }
            """;

    private static final String MODULE =
            """
            module repeater (
                input wire clk, input wire rst,
                input wire [31:0] KEY_VALUE, output wire WORDS_COUNT_count,
                input wire [31:0] in_tdata, input wire in_tvalid, output wire in_tready,
                output wire [31:0] out_tdata, output wire out_tvalid, input wire out_tready, output wire out_tlast
            );
                reg [31:0] word;
                reg [2:0] left;
                assign in_tready = left == 0;
                assign out_tvalid = left != 0;
                assign out_tdata = word + KEY_VALUE;
                assign out_tlast = left == 1;
                assign WORDS_COUNT_count = in_tvalid && in_tready;
                always @(posedge clk)
                    if (rst) left <= 0;
                    else if (in_tvalid && in_tready) begin word <= in_tdata; left <= 4; end
                    else if (out_tvalid && out_tready) begin word <= word + 1; left <= left - 1; end
            endmodule
            """;

    private static final String PROGRAM =
            """
            #include "drivers/dma.h"

            int main(void)
            {
                volatile uint32_t *from = (volatile uint32_t *)SOURCE_SECOND_BASE;
                volatile uint32_t *to = (volatile uint32_t *)GOAL_SECOND_BASE;
                volatile uint32_t *repeater = (volatile uint32_t *)REPEATER_BASE;
                repeater[0] = 7;
                for (uint32_t packet = 0; packet < 3; packet++) {
                    uint32_t words = 5 + packet;
                    for (uint32_t at = 0; at < words; at++)
                        from[at] = (at + packet) * 2654435761u;
                    dma_send(MOVER_BASE, MOVER_READS_SOURCE_PORT_ADDRESS, 4 * words, false);
                    for (uint32_t at = 0; at < words; at++) {
                        dma_receive(MOVER_BASE, MOVER_WRITES_GOAL_PORT_ADDRESS, 64, false);
                        while (!dma_is_received(MOVER_BASE)) {
                        }
                        uint32_t step = from[at] - (at ? from[at - 1] : 0);
                        for (uint32_t each = 0; each < 4; each++)
                            if (to[each] != step + 7 + each)
                                print_hex(to[each]);
                    }
                }
                print_hex(repeater[1]);
                print(" end.");
                for (;;) {
                }
            }
            """;

    @TempDir private Path folder;

    private static OwnBlock repeater() {
        OwnBlock described = OwnBlockDocument.read("repeater.json", REPEATER);
        OwnBlock whole =
                new OwnBlock(
                        described.type(),
                        described.definition(),
                        new TreeMap<>(Map.of("repeater.v", MODULE)),
                        new TreeMap<>());
        assertThat(OwnBlockChecks.of(whole, Shipped.LIBRARY)).isEmpty();
        return whole;
    }

    private static ElaboratedPlatform platform() throws IOException {
        OwnBlock coder = ForeignHdlRunsTest.block("step_coder.v");
        OwnBlock repeater = repeater();
        Library library =
                Shipped.LIBRARY
                        .with(coder.type(), coder.hardware(), coder.drivers())
                        .with(repeater.type(), repeater.hardware(), repeater.drivers());
        Editor editor = new Editor(library);
        Platform platform = BurstTimingTest.platform(Protocol.AXI4, 32, true).platform();
        platform =
                editor.apply(
                        platform,
                        new Edit.Several(
                                null,
                                List.of(
                                        new Edit.DisconnectStream("mover", "to_stream"),
                                        new Edit.AddBlock(
                                                "coder", coder.type().identity(), Map.of()),
                                        new Edit.AddBlock(
                                                "repeater",
                                                repeater.type().identity(),
                                                Map.of()))));
        platform =
                editor.apply(
                        platform,
                        new Edit.Several(
                                null,
                                List.of(
                                        new Edit.ConnectStream(
                                                "mover", "to_stream", "coder", "s_axis"),
                                        new Edit.ConnectStream("coder", "m_axis", "repeater", "in"),
                                        new Edit.ConnectStream(
                                                "repeater", "out", "mover", "from_stream"),
                                        new Edit.Attach(
                                                "repeater", "registers", "system", null, null))));
        platform =
                editor.apply(
                        platform,
                        WiringPlan.propose(platform, library, WiringPlan.Decisions.NONE)
                                .asEdit("wire"));
        return new Elaborator(library).elaborate(platform);
    }

    /** Words of all widths, marks and bytes that do not count, with sources and sinks that wait, and pauses in which it runs at once. */
    @ParameterizedTest
    @ValueSource(ints = {8, 120})
    void everyWordComesThrough(int width) throws IOException {
        ForeignModels models = SharedModels.get();
        assumeThat(models.isPossible()).isTrue();
        OwnBlock block = ForeignHdlRunsTest.block("step_coder.v");
        Library library = Shipped.LIBRARY.with(block.type(), block.hardware(), block.drivers());
        Platform platform =
                new Editor(library)
                        .apply(
                                Platform.empty("Rig", Shipped.BOARD),
                                new Edit.AddBlock(
                                        "coder",
                                        block.type().identity(),
                                        Map.of("WIDTH", Integer.toString(width))));
        ElaboratedPlatform elaborated = new Elaborator(library).elaborate(platform);
        Random random = new Random(width);
        List<String> due = new ArrayList<>();
        List<String> came = new ArrayList<>();
        try (OwnBlockModel model =
                (OwnBlockModel)
                        models.of(elaborated, elaborated.block("coder").orElseThrow(), null)
                                .orElseThrow()) {
            model.reset();
            StreamBlock streams = (StreamBlock) model;
            SteppedElement element = new SteppedElement(streams);
            BigInteger previous = BigInteger.ZERO;
            StreamWord offered = null;
            for (int edge = 0; edge < 3000; edge++) {
                if (offered == null && edge < 2800 && random.nextInt(3) == 0) {
                    offered = word(width / 8, random);
                    BigInteger value = number(offered.bytes());
                    BigInteger step = value.subtract(previous).mod(BigInteger.TWO.pow(width));
                    due.add(text(step, offered));
                    previous = offered.last() ? BigInteger.ZERO : value;
                }
                boolean takes = edge >= 2800 || random.nextInt(3) > 0;
                boolean goes = offered != null && element.isReady();
                StreamWord given = element.offered();
                if (given != null && takes) {
                    came.add(text(number(given.bytes()), given));
                }
                element.edge(offered, takes);
                offered = goes ? null : offered;
                if (random.nextInt(100) == 0) {
                    streams.skip(1 + random.nextInt(500));
                }
            }
        }
        assertThat(came).isEqualTo(due).hasSizeGreaterThan(400);
    }

    private static StreamWord word(int bytes, Random random) {
        byte[] word = new byte[bytes];
        random.nextBytes(word);
        boolean[] keep = new boolean[bytes];
        for (int at = 0; at < bytes; at++) {
            keep[at] = random.nextBoolean();
        }
        return new StreamWord(word, keep, random.nextInt(4) == 0);
    }

    private static BigInteger number(byte[] bytes) {
        byte[] highestFirst = new byte[bytes.length];
        for (int at = 0; at < bytes.length; at++) {
            highestFirst[bytes.length - 1 - at] = bytes[at];
        }
        return new BigInteger(1, highestFirst);
    }

    private static String text(BigInteger value, StreamWord marks) {
        return "%x %s %s".formatted(value, Arrays.toString(marks.keep()), marks.last());
    }

    @Test
    void benchAndSimulationSayTheSame() throws IOException {
        ElaboratedPlatform platform = platform();
        ForeignModels models = SharedModels.get();
        // Not where a machine forbids the namespaces of the sandbox.
        assumeThat(models.isPossible()).isTrue();
        ProgramImage image = BuiltProgram.of(platform, folder.resolve("program"), PROGRAM);
        ExerciseRun run = new ExerciseRun(platform, folder);
        run.use(image, List.of());
        String simulated = run.simulated("iverilog");
        assertThat(simulated).endsWith("00000012 end.");
        try (Machine machine =
                new Machine(SoftwareView.of(platform), MemoryShare.ample(), models)) {
            for (int again = 0; again < 2; again++) {
                machine.load(image);
                assertThat(BuiltProgram.saysUntil(machine, "end.", 0.1).strip())
                        .isEqualTo(simulated);
            }
        }
    }
}
