package polymetron.fit;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import polymetron.Shipped;
import polymetron.json.Documents;
import polymetron.library.Device;
import polymetron.outside.Tool;
import tools.jackson.databind.JsonNode;

/** Memory blocks against the check values of the trade and against {@code yosys}. */
final class BlockPackingTest {
    private static final int SHAPES = 150;

    private static Device.MemoryBlock block(String device) {
        return Shipped.LIBRARY.device(device).orElseThrow().memoryBlocks().getFirst();
    }

    /**
     * Common practice, no source: a ROM of 8 KiB, 16 KiB, 2 KiB with two ports and a buffer of 16 bytes are 77 % of the
     * bits, but 27 of 30 blocks; 2 KiB and 1 KiB more are 86 %, and the device is full.
     */
    @Test
    void theDeviceIsFullAtEightySixPercent() {
        Device.MemoryBlock nine = block("FL9-40");
        long all = nine.bits() * nine.count();
        assertThat(all).isEqualTo(276_480);
        List<int[]> memories =
                new ArrayList<>(
                        List.of(
                                new int[] {2048, 32},
                                new int[] {4096, 32},
                                new int[] {512, 32},
                                new int[] {16, 8}));
        assertThat(bits(memories)).isEqualTo(213_120);
        assertThat(bits(memories) * 100 / all).isEqualTo(77);
        assertThat(blocks(nine, memories)).isEqualTo(27);
        memories.add(new int[] {512, 32});
        memories.add(new int[] {256, 32});
        assertThat(bits(memories)).isEqualTo(237_696);
        assertThat(Math.round(bits(memories) * 100.0 / all)).isEqualTo(86);
        assertThat(blocks(nine, memories.subList(0, 5))).isEqualTo(29);
        // As words of one byte the last kibibyte takes the one block that is left.
        memories.set(5, new int[] {1024, 8});
        assertThat(blocks(nine, memories)).isEqualTo(nine.count());
    }

    private static long bits(List<int[]> memories) {
        return memories.stream().mapToLong(each -> (long) each[0] * each[1]).sum();
    }

    private static long blocks(Device.MemoryBlock sort, List<int[]> memories) {
        BlockPacking packing = new BlockPacking(sort, true);
        return memories.stream().mapToLong(each -> packing.blocks(each[0], each[1])).sum();
    }

    @ParameterizedTest
    @ValueSource(strings = {"FL9-40", "TR36-60"})
    void tilesCoverEachBitOnce(String device) {
        BlockPacking packing = new BlockPacking(block(device), false);
        Random random = new Random(9);
        for (int round = 0; round < 60; round++) {
            int depth = 1 + random.nextInt(20_000);
            int width = 1 + random.nextInt(140);
            List<Tile> tiles = packing.tiles(depth, width, 100_000);
            assertThat((long) tiles.size()).isEqualTo(packing.blocks(depth, width));
            assertThat(tiles.stream().mapToLong(Tile::usedBits).sum())
                    .isEqualTo((long) depth * width);
            for (Tile tile : tiles) {
                assertThat(tile.words()).isLessThanOrEqualTo(tile.shape().depth());
                assertThat(tile.bits()).isLessThanOrEqualTo(tile.shape().width());
            }
            long blocks = packing.blocks(depth, width);
            long deepest = packing.deepest(width, blocks);
            assertThat(deepest).isGreaterThanOrEqualTo(depth);
            assertThat(packing.blocks(deepest, width)).isLessThanOrEqualTo(blocks);
            assertThat(packing.blocks(deepest + 1, width)).isGreaterThan(blocks);
        }
    }

    /** The rule file that tells yosys the geometry of our blocks. */
    private static String rules(List<Device.Shape> shapes) {
        StringBuilder rules = new StringBuilder();
        for (Device.Shape shape : shapes) {
            int addressBits = Integer.numberOfTrailingZeros(shape.depth());
            rules.append(
                    """
                    bram \\shape_%d_%d
                      init 1
                      abits %d
                      dbits %d
                      groups 2
                      ports 1 1
                      wrmode 1 0
                      enable 1 1
                      transp 0 0
                      clocks 1 1
                      clkpol 1 1
                    endbram
                    """
                            .formatted(shape.depth(), shape.width(), addressBits, shape.width()));
        }
        for (int at = 0; at < shapes.size(); at++) {
            Device.Shape shape = shapes.get(at);
            rules.append("match \\shape_%d_%d%n".formatted(shape.depth(), shape.width()));
            rules.append("  shuffle_enable A\n");
            rules.append(at < shapes.size() - 1 ? "  or_next_if_better\nendmatch\n" : "endmatch\n");
        }
        return rules.toString();
    }

    /** This yosys writes a comma too many. */
    private static String statistics(Path folder) throws IOException {
        return Files.readString(folder.resolve("stat.json")).replaceAll(",\\s*}", "}");
    }

    @Test
    void neverMoreBlocksThanTheSynthesiserNeeds(@TempDir Path folder) throws IOException {
        Device.MemoryBlock nine = block("FL9-40");
        BlockPacking packing = new BlockPacking(nine, false);
        Random random = new Random(1);
        StringBuilder source = new StringBuilder();
        List<int[]> memories = new ArrayList<>();
        for (int number = 0; number < SHAPES; number++) {
            int depth = 1 << (6 + random.nextInt(8));
            depth = random.nextBoolean() ? depth : depth + random.nextInt(depth);
            int width = 1 + random.nextInt(72);
            memories.add(new int[] {depth, width});
            source.append(
                    """
                    module m%d(input clk, input we, input [19:0] wa, input [19:0] ra, input [%d:0] d, output reg [%d:0] q);
                    reg [%d:0] words [0:%d];
                    always @(posedge clk) begin if (we) words[wa] <= d; q <= words[ra]; end
                    endmodule
                    """
                            .formatted(number, width - 1, width - 1, width - 1, depth - 1));
        }
        Tool.write(folder, "memories.v", source.toString());
        Tool.write(folder, "blocks.txt", rules(nine.shapes()));
        Tool.run(
                folder,
                "yosys",
                "-q",
                "-p",
                "read_verilog memories.v; proc; opt; memory -nomap; memory_bram -rules blocks.txt;"
                        + " tee -q -o stat.json stat -json");
        JsonNode modules = Documents.tree("stat.json", statistics(folder)).path("modules");
        int better = 0;
        int compared = 0;
        for (int number = 0; number < SHAPES; number++) {
            JsonNode cells = modules.path("\\m" + number).path("num_cells_by_type");
            long theirs = 0;
            for (Device.Shape shape : nine.shapes()) {
                theirs +=
                        cells.path("shape_%d_%d".formatted(shape.depth(), shape.width())).asLong(0);
            }
            if (theirs == 0) {
                continue;
            }
            compared++;
            int[] memory = memories.get(number);
            long ours = packing.blocks(memory[0], memory[1]);
            assertThat(ours).as("%s × %s", memory[0], memory[1]).isLessThanOrEqualTo(theirs);
            better += ours < theirs ? 1 : 0;
        }
        assertThat(compared).isGreaterThan(SHAPES * 9 / 10);
        assertThat(better).as("mixing shapes saves blocks").isPositive();
    }
}
