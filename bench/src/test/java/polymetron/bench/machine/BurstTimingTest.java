package polymetron.bench.machine;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import polymetron.Shipped;
import polymetron.address.Address;
import polymetron.bus.Protocol;
import polymetron.cost.AccessCost;
import polymetron.edit.Edit;
import polymetron.edit.Editor;
import polymetron.elaborate.AddressSpace;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.InterfaceRef;
import polymetron.library.Vlnv;
import polymetron.output.image.ProgramImage;
import polymetron.platform.Bus;
import polymetron.platform.ClockDomain;
import polymetron.platform.Platform;
import polymetron.wiring.WiringPlan;

/**
 * What a DMA moves in how many cycles, on buses of its own beside the processor's: as long as <i>Addresses</i> predicts of its
 * bursts, and on the bench and in simulation the same.
 */
final class BurstTimingTest {
    private static final Editor EDITOR = new Editor(Shipped.LIBRARY);
    private static final int BURST = 16;

    @TempDir private Path folder;

    private static final String PROGRAM =
            """
            #include "drivers/dma.h"

            static uint32_t now(void)
            {
                uint32_t cycles;
                __asm__ volatile("csrr %0, mcycle" : "=r"(cycles));
                return cycles;
            }

            int main(void)
            {
                volatile uint32_t *from = (volatile uint32_t *)SOURCE_SECOND_BASE;
                volatile uint32_t *to = (volatile uint32_t *)GOAL_SECOND_BASE;
                for (uint32_t at = 0; at < 128; at++) {
                    from[at] = at * 2654435761u;
                }
                uint32_t bad = 0;
                for (uint32_t words = 64; words <= 128; words += 64) {
                    uint32_t begun = now();
                    dma_send(MOVER_BASE, MOVER_READS_SOURCE_PORT_ADDRESS, 4 * words, false);
                    while (!dma_is_sent(MOVER_BASE)) {
                    }
                    print_hex(now() - begun);
                    print(" ");
                    begun = now();
                    dma_receive(MOVER_BASE, MOVER_WRITES_GOAL_PORT_ADDRESS, 4 * words, false);
                    while (!dma_is_received(MOVER_BASE)) {
                    }
                    print_hex(now() - begun);
                    print("\\n");
                    for (uint32_t at = 0; at < words; at++) {
                        bad += to[at] != at * 2654435761u;
                        to[at] = 0;
                    }
                }
                print(bad == 0 ? "all well, end." : "wrong, end.");
                for (;;) {
                }
            }
            """;

    static ElaboratedPlatform platform(Protocol protocol, int width, boolean shared) {
        Platform platform = Platform.empty("Bursts", Vlnv.parse("polymetron:boards:terrace:1.0"));
        List<Edit> blocks = new ArrayList<>();
        add(blocks, "cpu", "processor:rv32-small:1.1", Map.of());
        add(blocks, "code", "memory:block-memory:1.1", Map.of("SIZE", "16384"));
        add(blocks, "console", "serial:uart:1.0", Map.of());
        for (String memory : List.of("source", "goal")) {
            add(blocks, memory, "memory:block-memory:1.1", Map.of("SIZE", "4096", "PORTS", "2"));
        }
        add(
                blocks,
                "mover",
                "data-movement:dma:1.0",
                Map.of("WIDTH", Integer.toString(width), "BURST", Integer.toString(BURST)));
        platform = EDITOR.apply(platform, new Edit.Several(null, blocks));
        List<Edit> edits = new ArrayList<>();
        edits.add(new Edit.AddDomain(new ClockDomain("main", "oscillator", "reset_button")));
        edits.add(new Edit.AddBus(new Bus("system", Protocol.AXI4_LITE, 32, 32, "main")));
        edits.add(new Edit.AddBus(new Bus("moving", protocol, 32, 32, "main")));
        edits.add(new Edit.AddBus(new Bus("other", protocol, 32, 32, "main")));
        String second = shared ? "moving" : "other";
        edits.add(new Edit.Attach("source", "port", "moving", new Address(0x2000_0000), null));
        edits.add(new Edit.Attach("goal", "port", second, new Address(0x3000_0000), null));
        edits.add(new Edit.Attach("mover", "reads", "moving", null, null));
        edits.add(new Edit.Attach("mover", "writes", second, null, null));
        for (String each :
                List.of(
                        "cpu.instruction",
                        "cpu.data",
                        "code.port",
                        "console.registers",
                        "mover.registers",
                        "source.second",
                        "goal.second")) {
            InterfaceRef ref = InterfaceRef.parse(each);
            Address base = each.equals("code.port") ? new Address(0) : null;
            edits.add(new Edit.Attach(ref.block(), ref.name(), "system", base, null));
        }
        edits.add(new Edit.ConnectStream("mover", "to_stream", "mover", "from_stream"));
        platform = EDITOR.apply(platform, new Edit.Several(null, edits));
        platform =
                EDITOR.apply(
                        platform,
                        WiringPlan.propose(platform, Shipped.LIBRARY, WiringPlan.Decisions.NONE)
                                .asEdit("wire"));
        return Shipped.elaborate(
                EDITOR.apply(platform, new Edit.SetParameter("console", "BAUD", "3125000")));
    }

    private static void add(
            List<Edit> blocks, String name, String type, Map<String, String> parameters) {
        blocks.add(new Edit.AddBlock(name, Vlnv.parse("polymetron:" + type), parameters));
    }

    private static AccessCost cost(ElaboratedPlatform platform, String initiator, String target) {
        AddressSpace space = platform.space(InterfaceRef.parse(initiator)).orElseThrow();
        return space.ranges().stream()
                .filter(range -> range.ref().toString().equals(target))
                .findFirst()
                .map(range -> AccessCost.of(platform, space, range))
                .orElseThrow();
    }

    @ParameterizedTest
    @CsvSource({"axi4, 32, true", "axi4, 64, false", "wishbone-b4, 32, false"})
    void movesAsFastAsPredicted(String protocol, int width, boolean shared) throws IOException {
        ElaboratedPlatform platform = platform(Protocol.of(protocol).orElseThrow(), width, shared);
        ExerciseRun run = new ExerciseRun(platform, folder);
        ProgramImage image = BuiltProgram.of(platform, folder.resolve("program"), PROGRAM);
        String onBench = run.onBench(image, List.of());
        assertThat(onBench).endsWith("all well, end.");
        run.use(image, List.of());
        assertThat(run.simulated("iverilog")).isEqualTo(onBench);
        String[] rows = onBench.split("\\s+");
        for (int way = 0; way < 2; way++) {
            AccessCost cost =
                    way == 0
                            ? cost(platform, "mover.reads", "source.port")
                            : cost(platform, "mover.writes", "goal.port");
            int bursts = 64 * 32 / width / BURST;
            long cycles = Long.parseLong(rows[2 + way], 16) - Long.parseLong(rows[way], 16);
            // The program looks every few cycles.
            assertThat((double) cycles)
                    .as(way == 0 ? "sent" : "received")
                    .isCloseTo(
                            bursts * cost.burstCycles(),
                            org.assertj.core.api.Assertions.within(30.0));
        }
    }
}
