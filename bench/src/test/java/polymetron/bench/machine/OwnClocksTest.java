package polymetron.bench.machine;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;
import static org.assertj.core.api.Assumptions.assumeThat;

import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.TreeMap;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import polymetron.Shipped;
import polymetron.bench.block.OwnBlockModel;
import polymetron.bench.block.StreamBlock;
import polymetron.bench.foreign.ForeignModels;
import polymetron.bench.foreign.SharedModels;
import polymetron.bench.stream.SteppedElement;
import polymetron.bench.stream.StreamWord;
import polymetron.edit.Edit;
import polymetron.edit.Editor;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.Elaborator;
import polymetron.library.Library;
import polymetron.library.Vlnv;
import polymetron.ownblock.OwnBlock;
import polymetron.ownblock.OwnBlockChecks;
import polymetron.ownblock.OwnBlockDocument;
import polymetron.platform.ClockDomain;
import polymetron.platform.Platform;

/** Blocks of one's own with registers in one clock and the rest in another, faster or slower, on the bench. */
final class OwnClocksTest {
    private static final String DOCUMENT =
            """
            {
              "format": "polymetron-own-block/1",
              "definition": {
                "format": "polymetron-block-type/2", "identity": "bellworks:timing:gauge:1.0", "kind": "peripheral",
                "title": "Gauge", "summary": "Counts in two clocks", "description": "It counts.", "defaultName": "gauge",
                "clocks": [{ "name": "clk" }, { "name": "aux" }],
                "resets": [{ "name": "rst", "clock": "clk" }, { "name": "aux_rst", "clock": "aux" }],
                "busInterfaces": [{ "name": "registers", "role": "target", "protocols": ["apb"], "dataWidth": 32,
                  "size": 4096, "usage": "registers", "executable": false, "clock": "clk" }],
                "streams": [STREAMS],
                "registers": [
                  { "name": "CYCLES", "explains": "", "fields": [
                    { "name": "COUNT", "width": 32, "software": "read-only", "hardware": "value", "explains": "of clk" }] },
                  { "name": "TICKS", "explains": "", "fields": [
                    { "name": "COUNT", "width": 32, "software": "read-only", "hardware": "value", "explains": "of aux" }] },
                  { "name": "KEY", "explains": "", "fields": [
                    { "name": "VALUE", "width": 32, "software": "read-write", "explains": "added to each" }] }
                ],
                "resources": { "lookupTables": 99, "flipFlops": 99, "multipliers": 0 },
                "hardware": { "module": "gauge", "files": ["gauge.v"] }, "software": {}
              },
              "hardware": [{ "name": "gauge.v", "lines": [] }]
            }
            """;

    private static final String STREAMS =
            """
            { "name": "in", "end": "sink", "dataWidth": 32, "clock": "aux" },
            { "name": "out", "end": "source", "dataWidth": 32, "clock": "aux" }
            """;

    private static final String COUNTERS =
            """
            module gauge (
                input wire clk, input wire rst, input wire aux, input wire aux_rst,
                output reg [31:0] CYCLES_COUNT, output reg [31:0] TICKS_COUNT, input wire [31:0] KEY_VALUE
            );
                always @(posedge clk) CYCLES_COUNT <= rst ? 0 : CYCLES_COUNT + 1;
                always @(posedge aux) TICKS_COUNT <= aux_rst ? 0 : TICKS_COUNT + 1;
            endmodule
            """;

    private static final String ADDER =
            """
            module gauge (
                input wire clk, input wire rst, input wire aux, input wire aux_rst,
                output wire [31:0] CYCLES_COUNT, output reg [31:0] TICKS_COUNT, input wire [31:0] KEY_VALUE,
                input wire [31:0] in_tdata, input wire in_tvalid, output wire in_tready,
                output wire [31:0] out_tdata, output wire out_tvalid, input wire out_tready
            );
                assign CYCLES_COUNT = 0;
                assign out_tdata = in_tdata + KEY_VALUE;
                assign out_tvalid = in_tvalid;
                assign in_tready = out_tready;
                always @(posedge aux) TICKS_COUNT <= aux_rst ? 0 : TICKS_COUNT + (in_tvalid && in_tready);
            endmodule
            """;

    private ForeignModels models;

    @BeforeEach
    void find() {
        models = SharedModels.get();
        assumeThat(models.isPossible()).isTrue();
    }

    /** A gauge whose aux is eight times the board's clock, divided. */
    private OwnBlockModel gauge(String streams, String module, int divisor) {
        OwnBlock described =
                OwnBlockDocument.read("gauge.json", DOCUMENT.replace("STREAMS", streams));
        OwnBlock block =
                new OwnBlock(
                        described.type(),
                        described.definition(),
                        new TreeMap<>(Map.of("gauge.v", module)),
                        new TreeMap<>());
        assertThat(OwnBlockChecks.of(block, Shipped.LIBRARY)).isEmpty();
        Library library = Shipped.LIBRARY.with(block.type(), block.hardware(), block.drivers());
        Platform platform = Platform.empty("Rig", Shipped.BOARD);
        for (Edit edit :
                List.of(
                        new Edit.AddBlock(
                                "pll",
                                Vlnv.parse("polymetron:infrastructure:pll:1.0"),
                                Map.of("MULTIPLY", "8", "OUTPUTS", "1", "OUT0", "" + divisor)),
                        new Edit.AddDomain(new ClockDomain("main", "oscillator", "reset_button")),
                        new Edit.SetDomain("pll", "clk", "main"),
                        new Edit.AddDomain(new ClockDomain("other", "pll.out0", "reset_button")),
                        new Edit.AddBlock("gauge", block.type().identity(), Map.of()),
                        new Edit.SetDomain("gauge", "clk", "main"),
                        new Edit.SetDomain("gauge", "rst", "main"),
                        new Edit.SetDomain("gauge", "aux", "other"),
                        new Edit.SetDomain("gauge", "aux_rst", "other"))) {
            platform = new Editor(library).apply(platform, edit);
        }
        ElaboratedPlatform elaborated = new Elaborator(library).elaborate(platform);
        ElaboratedBlock gauge = elaborated.block("gauge").orElseThrow();
        return (OwnBlockModel)
                models.of(elaborated, gauge, gauge.shape().busInterface("registers").orElseThrow())
                        .orElseThrow();
    }

    @ParameterizedTest
    @ValueSource(ints = {3, 8, 9, 17, 100})
    void clocksGoOnBesideEachOther(int divisor) {
        try (OwnBlockModel model = gauge("", COUNTERS, divisor)) {
            assertThat(model.clock()).isEqualTo("clk");
            model.reset();
            for (int cycle = 0; cycle < 200_000; cycle += 997) {
                model.advance(cycle);
                int ticks = model.read(4);
                int cycles = model.read(0);
                assertThat((double) cycles).isCloseTo(cycle, within(10.0 + cycle * 0.02));
                assertThat((double) ticks)
                        .isCloseTo(cycles * 8.0 / divisor, within(2 + 16.0 / divisor));
            }
            model.restart();
            assertThat(model.read(4)).isLessThan(12);
        }
    }

    @ParameterizedTest
    @ValueSource(ints = {3, 17})
    void streamsAreInTheirOwn(int divisor) {
        Random random = new Random(divisor);
        List<Integer> due = new ArrayList<>();
        List<Integer> came = new ArrayList<>();
        try (OwnBlockModel model = gauge(STREAMS, ADDER, divisor)) {
            assertThat(model.clock()).isEqualTo("aux");
            model.reset();
            SteppedElement element = new SteppedElement((StreamBlock) model);
            int key = 0;
            for (int edge = 0; edge < 2000; edge++) {
                StreamWord given = element.offered();
                if (given != null) {
                    came.add(
                            ByteBuffer.wrap(given.bytes()).order(ByteOrder.LITTLE_ENDIAN).getInt());
                }
                int word = random.nextInt();
                boolean goes = edge < 1900 && edge % 50 < 40 && element.isReady();
                ByteBuffer bytes =
                        ByteBuffer.allocate(4).order(ByteOrder.LITTLE_ENDIAN).putInt(word);
                element.edge(goes ? new StreamWord(bytes.array(), null, false) : null, true);
                if (goes) {
                    due.add(word + key);
                }
                if (edge % 50 == 49) {
                    // All that came has gone.
                    assertThat(model.read(4)).isEqualTo(due.size());
                    key = random.nextInt();
                    model.write(8, key, -1);
                }
            }
        }
        assertThat(came).isEqualTo(due).hasSizeGreaterThan(1000);
    }
}
