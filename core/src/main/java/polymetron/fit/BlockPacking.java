package polymetron.fit;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import polymetron.library.Device;

/**
 * The fewest memory blocks of one sort that a memory needs.
 *
 * <p>A memory of {@code depth} words and {@code width} bits is a rectangle that blocks have to cover; a block has one of
 * a few shapes. It is cut in two, by depth or by width, and each part again, until one block covers a part: guillotine
 * cuts (Gilmore and Gomory, Operations Research 13, 1965), all of them tried by dynamic programming over depths counted
 * in the smallest shape's depth. Since all depths divide the deepest, whole multiples of the deepest can be taken off
 * first without losing anything, so the table has as many rows as the deepest shape has units, whatever the memory's
 * depth: {@code rows * width * (rows + width)} steps, once for each width.
 *
 * <p>Where blocks split into two independent halves, everything is counted in halves, whose shapes are half as deep;
 * two halves make each whole shape, so nothing is lost either.
 *
 * <p>With byte enables each group of nine bits holds one byte, because a block writes its nines as one; without them
 * the ninth bits hold data as well.
 */
public final class BlockPacking {
    private final List<Device.Shape> shapes;
    private final int unit;
    private final int rows;
    private final int[] usable;

    /** Fewest blocks for {@code [units of depth][width]}, and where it is cut; grown as wider memories come. */
    private int[][] fewest = new int[0][0];

    private int[][] cuts = new int[0][0];

    /**
     * @param byteEnables whether single bytes of a word are written
     */
    public BlockPacking(Device.MemoryBlock block, boolean byteEnables) {
        this.shapes =
                block.shapes().stream()
                        .map(
                                each ->
                                        new Device.Shape(
                                                block.halves() ? each.depth() / 2 : each.depth(),
                                                each.width()))
                        .sorted(Comparator.comparingInt(Device.Shape::depth))
                        .toList();
        this.unit = shapes.getFirst().depth();
        this.rows = shapes.getLast().depth() / unit;
        this.usable = new int[shapes.size()];
        for (int at = 0; at < usable.length; at++) {
            int width = shapes.get(at).width();
            usable[at] = byteEnables && width % 9 == 0 ? width / 9 * 8 : width;
        }
    }

    /** Fewest blocks, or halves where blocks split; 0 for a memory without words or bits. */
    public long blocks(long depth, int width) {
        if (depth <= 0 || width <= 0) {
            return 0;
        }
        grow(width);
        long units = (depth + unit - 1) / unit;
        int rest = (int) (units % rows);
        return units / rows * fewest[rows][width] + (rest == 0 ? 0 : fewest[rest][width]);
    }

    /**
     * What is in each block.
     *
     * @param most tiles at most, so that an absurd memory does not fill ours
     */
    public List<Tile> tiles(long depth, int width, int most) {
        List<Tile> tiles = new ArrayList<>();
        if (depth <= 0 || width <= 0) {
            return tiles;
        }
        grow(width);
        long whole = (long) rows * unit;
        for (long first = 0; first < depth && tiles.size() < most; first += whole) {
            long words = Math.min(whole, depth - first);
            lay(tiles, first, words, 0, width, most);
        }
        return tiles;
    }

    /** Words of the deepest memory of that width that at most so many blocks hold. */
    public long deepest(int width, long blocks) {
        if (width <= 0 || blocks <= 0) {
            return 0;
        }
        grow(width);
        long units = blocks / fewest[rows][width] * rows;
        long left = blocks % fewest[rows][width];
        for (int rest = rows - 1; rest > 0; rest--) {
            if (fewest[rest][width] <= left) {
                return (units + rest) * unit;
            }
        }
        return units * unit;
    }

    private void lay(
            List<Tile> tiles, long firstWord, long words, int firstBit, int bits, int most) {
        if (tiles.size() >= most) {
            return;
        }
        int units = (int) ((words + unit - 1) / unit);
        int cut = cuts[units][bits];
        if (cut == 0) {
            tiles.add(new Tile(cover(units, bits), firstWord, words, firstBit, bits));
        } else if (cut > 0) {
            lay(tiles, firstWord, words, firstBit, cut, most);
            lay(tiles, firstWord, words, firstBit + cut, bits - cut, most);
        } else {
            long above = (long) -cut * unit;
            lay(tiles, firstWord, above, firstBit, bits, most);
            lay(tiles, firstWord + above, words - above, firstBit, bits, most);
        }
    }

    /** The shape that covers a part by itself, the one that leaves the least; null when none does. */
    private Device.Shape cover(int units, int width) {
        for (int at = 0; at < usable.length; at++) {
            if (shapes.get(at).depth() >= units * unit && usable[at] >= width) {
                return shapes.get(at);
            }
        }
        return null;
    }

    /** Fills the table up to a width. Cuts by width are positive, cuts by depth negative, none is 0. */
    private synchronized void grow(int width) {
        if (fewest.length > 0 && fewest[0].length > width) {
            return;
        }
        int columns = Integer.highestOneBit(width) * 2;
        int[][] best = new int[rows + 1][columns + 1];
        int[][] cut = new int[rows + 1][columns + 1];
        for (int bits = 1; bits <= columns; bits++) {
            for (int units = 1; units <= rows; units++) {
                if (cover(units, bits) != null) {
                    best[units][bits] = 1;
                    continue;
                }
                int least = Integer.MAX_VALUE;
                for (int at = 1; at <= bits / 2; at++) {
                    int both = best[units][at] + best[units][bits - at];
                    if (both < least) {
                        least = both;
                        cut[units][bits] = bits - at;
                    }
                }
                for (int at = 1; at <= units / 2; at++) {
                    int both = best[at][bits] + best[units - at][bits];
                    if (both < least) {
                        least = both;
                        cut[units][bits] = at - units;
                    }
                }
                best[units][bits] = least;
            }
        }
        cuts = cut;
        fewest = best;
    }
}
