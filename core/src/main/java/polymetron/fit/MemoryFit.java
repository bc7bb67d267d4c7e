package polymetron.fit;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.SizedMemory;
import polymetron.library.Device;

/**
 * The memories of a platform on the memory blocks of its device. Blocks are taken by the memories in the order of their
 * names, so the outcome does not depend on the order in which blocks were added.
 *
 * @param sort memory block of the device; null when it has none
 * @param uses every memory, in the order of their names
 * @param unitsUsed memory blocks in use, or halves where blocks split
 * @param units memory blocks of the device, or halves
 */
public record MemoryFit(Device.MemoryBlock sort, List<MemoryUse> uses, long unitsUsed, long units) {
    /** Largest memory that is made of lookup tables although it is deeper than one of them. */
    private static final long SMALL_BITS = 1024;

    /** Tiles of one memory that are told one by one; no device has more blocks. */
    private static final int MOST_TILES = 4096;

    /** What is in one unit of the device. */
    public record Filled(int unit, MemoryUse use, Tile tile) {}

    /** What was worked out for a sort of block; there are as many as the library has devices. */
    private static final Map<PackingKey, BlockPacking> PACKINGS = new ConcurrentHashMap<>();

    private record PackingKey(Device.MemoryBlock sort, boolean byteEnables) {}

    private static BlockPacking packing(Device.MemoryBlock sort, boolean byteEnables) {
        return PACKINGS.computeIfAbsent(
                new PackingKey(sort, byteEnables),
                key -> new BlockPacking(key.sort(), key.byteEnables()));
    }

    public static MemoryFit of(ElaboratedPlatform platform) {
        Device device = platform.device();
        Device.MemoryBlock sort =
                device == null || device.memoryBlocks().isEmpty()
                        ? null
                        : device.memoryBlocks().getFirst();
        Planner planner = new Planner(device, sort);
        List<MemoryUse> uses = new ArrayList<>();
        platform.blocks().stream()
                .filter(block -> !block.shape().memories().isEmpty())
                .sorted(Comparator.comparing(ElaboratedBlock::name))
                .forEach(
                        block ->
                                block.shape().memories().stream()
                                        .filter(memory -> memory.bits() > 0)
                                        .forEach(
                                                memory ->
                                                        uses.add(
                                                                planner.use(
                                                                        block.name(), memory))));
        long units = sort == null ? 0 : (long) sort.count() * (sort.halves() ? 2 : 1);
        return new MemoryFit(
                sort, List.copyOf(uses), uses.stream().mapToLong(MemoryUse::units).sum(), units);
    }

    /** Whole memory blocks in use: two halves of different memories share one. */
    public long blocksUsed() {
        return sort != null && sort.halves() ? (unitsUsed + 1) / 2 : unitsUsed;
    }

    public long blocks() {
        return sort == null ? 0 : sort.count();
    }

    public boolean fits() {
        return unitsUsed <= units
                && uses.stream().noneMatch(use -> use.place() == MemoryUse.Place.NOWHERE);
    }

    /** Bits that the memories in memory blocks hold. */
    public long bitsUsed() {
        return uses.stream()
                .filter(use -> use.place() == MemoryUse.Place.BLOCKS)
                .mapToLong(use -> use.memory().bits())
                .sum();
    }

    public long bits() {
        return sort == null ? 0 : sort.bits() * sort.count();
    }

    /** Bits of one unit. */
    public long unitBits() {
        return sort == null ? 0 : sort.bits() / (sort.halves() ? 2 : 1);
    }

    /** Lookup tables that are memories. */
    public long lookupTables() {
        return uses.stream().mapToLong(MemoryUse::lookupTables).sum();
    }

    /** The units in use, in order; those beyond the device's last do not fit. */
    public List<Filled> filled() {
        List<Filled> filled = new ArrayList<>();
        for (MemoryUse use : uses) {
            for (Tile tile : tiles(use)) {
                filled.add(new Filled(filled.size(), use, tile));
            }
        }
        return filled;
    }

    private List<Tile> tiles(MemoryUse use) {
        SizedMemory memory = use.memory();
        return use.place() == MemoryUse.Place.BLOCKS
                ? packing(sort, memory.byteEnables())
                        .tiles(memory.depth(), memory.width(), MOST_TILES)
                : List.of();
    }

    /** Words of the deepest memory of a width that still fits beside all others. */
    public long deepest(int width, boolean byteEnables) {
        return sort == null
                ? 0
                : packing(sort, byteEnables).deepest(width, Math.max(0, units - unitsUsed));
    }

    private static final class Planner {
        private final Device device;
        private final Device.MemoryBlock sort;
        private final BlockPacking plain;
        private final BlockPacking bytes;

        private Planner(Device device, Device.MemoryBlock sort) {
            this.device = device;
            this.sort = sort;
            this.plain = sort == null ? null : packing(sort, false);
            this.bytes = sort == null ? null : packing(sort, true);
        }

        private MemoryUse use(String block, SizedMemory memory) {
            if (isSmall(memory)) {
                int depth = device.distributed().depth();
                long tables = (memory.depth() + depth - 1) / depth * memory.width();
                return new MemoryUse(block, memory, MemoryUse.Place.DISTRIBUTED, 0, tables, 0);
            }
            if (sort == null || memory.ports() > sort.ports()) {
                return new MemoryUse(block, memory, MemoryUse.Place.NOWHERE, 0, 0, 0);
            }
            BlockPacking packing = memory.byteEnables() ? bytes : plain;
            return new MemoryUse(
                    block,
                    memory,
                    MemoryUse.Place.BLOCKS,
                    packing.blocks(memory.depth(), memory.width()),
                    0,
                    packing.blocks(2 * memory.depth(), memory.width()));
        }

        private boolean isSmall(SizedMemory memory) {
            return device != null
                    && device.distributed() != null
                    && memory.ports() == 1
                    && (memory.depth() <= device.distributed().depth()
                            || memory.bits() <= SMALL_BITS);
        }
    }
}
