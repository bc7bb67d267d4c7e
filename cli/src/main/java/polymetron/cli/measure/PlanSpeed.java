package polymetron.cli.measure;

import java.util.ArrayList;
import java.util.List;
import polymetron.clock.PllPlan;
import polymetron.clock.PllWish;
import polymetron.fit.BlockPacking;
import polymetron.library.Device;
import polymetron.library.Library;
import polymetron.library.LibraryLoader;
import polymetron.platform.PlatformDocument;
import tools.jackson.databind.json.JsonMapper;

/** Settings of PLLs and packing of memories, beside the JSON parse of a platform of 300 blocks. */
final class PlanSpeed implements Measurement {
    private static final int BLOCKS = 300;
    private static final int MEMORIES = 200;
    private static final long INPUT_HZ = 100_000_000;

    @Override
    public String title() {
        return "PLL settings and memory packing, beside the JSON parse of 300 blocks";
    }

    @Override
    public String measure() throws Exception {
        Library library = LibraryLoader.load();
        Device device = library.device("TR36-60").orElseThrow();
        String text = PlatformDocument.write(LargePlatform.of(BLOCKS));
        JsonMapper mapper = new JsonMapper();
        List<PllWish> wishes = new ArrayList<>();
        for (long hertz :
                new long[] {
                    12_288_000, 24_000_000, 33_333_333, 48_000_000, 74_250_000, 125_000_000
                }) {
            wishes.add(new PllWish("w" + wishes.size(), hertz, 20));
        }
        Repeat.Pair plls =
                Repeat.inTurns(
                        20,
                        20,
                        () -> PllPlan.of(device.plls(), INPUT_HZ, wishes, device.plls().count()),
                        () -> mapper.readTree(text));
        Device.MemoryBlock sort = device.memoryBlocks().getFirst();
        Repeat.Pair cold =
                Repeat.inTurns(
                        20,
                        20,
                        () -> pack(new BlockPacking(sort, false)),
                        () -> mapper.readTree(text));
        BlockPacking known = new BlockPacking(sort, false);
        Repeat.Pair warm = Repeat.inTurns(20, 20, () -> pack(known), () -> mapper.readTree(text));
        return "| | time | JSON parse | ratio |\n|---|---:|---:|---:|\n"
                + Machine.row("6 clocks over at most 4 PLLs", plls)
                + Machine.row(MEMORIES + " memories, tables from nothing", cold)
                + Machine.row(MEMORIES + " memories, tables known", warm)
                + "\nAim: PLL settings for 6 outputs in less than 50 ms.\n";
    }

    private static Long pack(BlockPacking packing) {
        long blocks = 0;
        for (int number = 0; number < MEMORIES; number++) {
            blocks += packing.tiles(64L + number * 131, 1 + number * 7 % 128, 4096).size();
        }
        return blocks;
    }
}
