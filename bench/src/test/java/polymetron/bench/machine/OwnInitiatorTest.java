package polymetron.bench.machine;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assumptions.assumeThat;

import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import polymetron.Shipped;
import polymetron.bench.foreign.ForeignModels;
import polymetron.bench.foreign.SharedModels;
import polymetron.bench.hart.MemoryShare;
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

/** A block of one's own that moves data by itself: on the bench its HDL runs, and programs find in memory what they find in simulation. */
final class OwnInitiatorTest {
    private static final String DOCUMENT =
            """
            {
              "format": "polymetron-own-block/1",
              "definition": {
                "format": "polymetron-block-type/2", "identity": "bellworks:moving:copier:1.0", "kind": "peripheral",
                "title": "Copier", "summary": "Copies words", "description": "It copies.", "defaultName": "copier",
                "clocks": [{ "name": "clk" }], "resets": [{ "name": "rst", "clock": "clk" }],
                "busInterfaces": [
                  { "name": "registers", "role": "target", "protocols": ["apb"], "dataWidth": 32,
                    "size": 4096, "usage": "registers", "executable": false },
                  { "name": "memory", "role": "initiator", "protocols": ["PROTOCOL"], "dataWidth": 32,
                    "addressWidth": 32, "executable": false }],
                "registers": [
                  { "name": "FROM", "explains": "", "fields": [
                    { "name": "ADDRESS", "width": 32, "software": "read-write", "explains": "first word" }] },
                  { "name": "TO", "explains": "", "fields": [
                    { "name": "ADDRESS", "width": 32, "software": "read-write", "explains": "first word" }] },
                  { "name": "WORDS", "explains": "", "fields": [
                    { "name": "COUNT", "width": 16, "software": "read-write", "explains": "to copy" }] },
                  { "name": "CONTROL", "explains": "", "fields": [
                    { "name": "GO", "software": "write-only", "onWrite": "pulse", "explains": "starts" }] },
                  { "name": "STATE", "explains": "", "fields": [
                    { "name": "BUSY", "software": "read-only", "hardware": "value", "explains": "copies" },
                    { "name": "FAILED", "software": "read-only", "hardware": "value", "explains": "an access failed" }] }
                ],
                "resources": { "lookupTables": 99, "flipFlops": 99, "multipliers": 0 },
                "hardware": { "module": "copier", "files": ["copier.v"] }, "software": {}
              },
              "hardware": [{ "name": "copier.v", "lines": [] }]
            }
            """;

    /** Each word is read, and written with its bytes turned round, the upper two of them by a second write. */
    private static final String MODULE =
            """
            module copier (
                input wire clk, input wire rst,
                input wire [31:0] FROM_ADDRESS, input wire [31:0] TO_ADDRESS, input wire [15:0] WORDS_COUNT,
                input wire CONTROL_GO_pulse, output wire STATE_BUSY, output reg STATE_FAILED,
                output wire memory_request, output wire memory_write, output wire [31:0] memory_address,
                output wire [31:0] memory_value, output wire [3:0] memory_bytes,
                input wire memory_done, input wire [31:0] memory_answer, input wire memory_error
            );
                reg [1:0] does;
                reg [15:0] at;
                reg [31:0] word;
                wire [31:0] offset = {14'd0, at, 2'b00};
                assign STATE_BUSY = does != 0;
                assign memory_request = does != 0;
                assign memory_write = does != 1;
                assign memory_address = (does == 1 ? FROM_ADDRESS : TO_ADDRESS) + offset;
                assign memory_value = {word[7:0], word[15:8], word[23:16], word[31:24]};
                assign memory_bytes = does == 2 ? 4'b0011 : does == 3 ? 4'b1100 : 4'b1111;
                always @(posedge clk)
                    if (rst) begin does <= 0; STATE_FAILED <= 0; end
                    else if (does == 0) begin
                        at <= 0;
                        if (CONTROL_GO_pulse) begin does <= WORDS_COUNT == 0 ? 0 : 1; STATE_FAILED <= 0; end
                    end
                    else if (memory_done) begin
                        if (memory_error) STATE_FAILED <= 1;
                        if (does == 1) word <= memory_answer;
                        if (does == 3) at <= at + 1;
                        does <= memory_error || (does == 3 && at + 16'd1 == WORDS_COUNT) ? 0 : does == 3 ? 1 : does + 1;
                    end
            endmodule
            """;

    private static final String PROGRAM =
            """
            int main(void)
            {
                volatile uint32_t *from = (volatile uint32_t *)SOURCE_SECOND_BASE;
                volatile uint32_t *to = (volatile uint32_t *)GOAL_SECOND_BASE;
                volatile uint32_t *copier = (volatile uint32_t *)COPIER_BASE;
                for (uint32_t words = 1; words < 40; words = 3 * words + 1) {
                    for (uint32_t at = 0; at < words; at++)
                        from[at] = (at + words) * 2654435761u;
                    to[words] = 0x12345678u;
                    copier[0] = 0x20000000u;
                    copier[1] = 0x30000000u;
                    copier[2] = words;
                    copier[3] = 1u;
                    while (copier[4] & 1u) {
                    }
                    uint32_t sum = 0;
                    for (uint32_t at = 0; at < words; at++)
                        sum = 31u * sum + to[at];
                    print_hex(sum);
                    print_hex(to[words]);
                    print_hex(copier[4]);
                    print(" ");
                }
                copier[0] = 0x70000000u;
                copier[3] = 1u;
                while (copier[4] & 1u) {
                }
                print_hex(copier[4]);
                print(" end.");
                for (;;) {
                }
            }
            """;

    private static final String BURSTS =
            """
            int main(void)
            {
                volatile uint32_t *from = (volatile uint32_t *)SOURCE_SECOND_BASE;
                volatile uint32_t *to = (volatile uint32_t *)GOAL_SECOND_BASE;
                volatile uint32_t *copier = (volatile uint32_t *)COPIER_BASE;
                for (uint32_t at = 0; at < 24; at++) {
                    from[at] = at * 2654435761u;
                    to[at] = 0;
                }
                for (uint32_t part = 0; part < 3; part++) {
                    copier[0] = 0x20000000u + 32u * part;
                    copier[1] = 0x30000000u + 32u * (2u - part);
                    copier[2] = 0;
                    while (copier[2] & 1u) {
                    }
                    print_hex(copier[2]);
                }
                for (uint32_t at = 0; at < 24; at++)
                    if (to[at] != ~from[(16u - (at & ~7u)) + (at & 7u)])
                        print(" wrong");
                copier[0] = 0x70000000u;
                copier[2] = 0;
                while (copier[2] & 1u) {
                }
                print(copier[2] ? " failed end." : " end.");
                for (;;) {
                }
            }
            """;

    @TempDir private Path folder;

    private static OwnBlock copier(Protocol protocol) {
        String text = DOCUMENT.replace("PROTOCOL", protocol.toString());
        OwnBlock described = OwnBlockDocument.read("copier.json", text);
        OwnBlock copier =
                new OwnBlock(
                        described.type(),
                        described.definition(),
                        new TreeMap<>(Map.of("copier.v", MODULE)),
                        new TreeMap<>());
        assertThat(OwnBlockChecks.of(copier, Shipped.LIBRARY)).isEmpty();
        return copier;
    }

    private static ElaboratedPlatform platform(OwnBlock copier, String memory) {
        Library library = Shipped.LIBRARY.with(copier.type(), copier.hardware(), copier.drivers());
        Editor editor = new Editor(library);
        Platform platform = BurstTimingTest.platform(Protocol.AXI4, 32, true).platform();
        platform =
                editor.apply(
                        platform, new Edit.AddBlock("copier", copier.type().identity(), Map.of()));
        platform =
                editor.apply(
                        platform,
                        new Edit.Several(
                                null,
                                List.of(
                                        new Edit.Attach(
                                                "copier", "registers", "system", null, null),
                                        new Edit.Attach("copier", memory, "moving", null, null))));
        platform =
                editor.apply(
                        platform,
                        WiringPlan.propose(platform, library, WiringPlan.Decisions.NONE)
                                .asEdit("wire"));
        return new Elaborator(library).elaborate(platform);
    }

    @ParameterizedTest
    @EnumSource(
            value = Protocol.class,
            names = {"AXI4", "AHB_LITE"})
    void benchAndSimulationSayTheSame(Protocol protocol) throws IOException {
        String said = saidByBoth(platform(copier(protocol), "memory"), PROGRAM);
        assertThat(said).endsWith("00000002 end.").contains("1234567800000000 ");
    }

    /** Reads and writes of AXI4 at the same time, from a file of Verilog. */
    @Test
    void burstsOfAFileComeThrough() throws IOException {
        OwnBlock copier = ForeignHdlRunsTest.block("burst_copier.v");
        assertThat(saidByBoth(platform(copier, "m_axi"), BURSTS))
                .isEqualTo("000000000000000000000000 failed end.");
    }

    private String saidByBoth(ElaboratedPlatform platform, String program) throws IOException {
        ForeignModels models = SharedModels.get();
        // Not where a machine forbids the namespaces of the sandbox.
        assumeThat(models.isPossible()).isTrue();
        ProgramImage image = BuiltProgram.of(platform, folder.resolve("program"), program);
        ExerciseRun run = new ExerciseRun(platform, folder);
        run.use(image, List.of());
        String simulated = run.simulated("iverilog");
        try (Machine machine =
                new Machine(SoftwareView.of(platform), MemoryShare.ample(), models)) {
            for (int again = 0; again < 2; again++) {
                machine.load(image);
                assertThat(BuiltProgram.saysUntil(machine, "end.", 0.1).strip())
                        .isEqualTo(simulated);
            }
        }
        return simulated;
    }
}
