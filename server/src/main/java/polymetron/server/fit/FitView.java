package polymetron.server.fit;

import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * What a platform needs of its device.
 *
 * @param bigger the smallest other device of the family that it fits; missing when it fits or none does
 */
public record FitView(
        long revision,
        String device,
        String family,
        String packageName,
        String logic,
        boolean fits,
        @Nullable String bigger,
        MemoryFitView memory,
        List<AmountView> amounts,
        List<String> advice) {

    /**
     * @param sort memory block of the device
     * @param halves whether each tile is half of one
     * @param tiles units in use, in order
     * @param units units of the device
     */
    public record MemoryFitView(
            String sort,
            List<String> shapes,
            boolean halves,
            long blocks,
            long blocksUsed,
            long bits,
            long bitsUsed,
            long units,
            long unitsUsed,
            boolean fits,
            List<TileView> tiles,
            List<UseView> uses,
            List<LargestView> largest) {}

    /**
     * @param percent how much of its bits are used
     * @param holds which words and bits of the memory are in it
     */
    public record TileView(String memory, String block, int percent, String shape, String holds) {}

    /**
     * @param place what it is made of
     * @param amount how much of that
     * @param doubling what twice as many words would cost
     */
    public record UseView(
            String memory,
            String block,
            long depth,
            int width,
            String bits,
            String place,
            String amount,
            String doubling) {}

    /** The deepest memory of a width that still fits. */
    public record LargestView(int width, long words, String size) {}

    public record AmountView(
            String name,
            long used,
            long available,
            int uncertaintyPercent,
            boolean fits,
            boolean surely,
            List<ShareView> shares) {}

    /**
     * @param block block to select; missing for a bus or a clock
     */
    public record ShareView(String who, @Nullable String block, long count) {}
}
