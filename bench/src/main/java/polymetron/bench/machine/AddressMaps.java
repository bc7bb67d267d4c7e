package polymetron.bench.machine;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import polymetron.bench.block.BlockModel;
import polymetron.bench.block.FlashControllerModel;
import polymetron.bench.hart.AccessCycles;
import polymetron.bench.hart.BusMap;
import polymetron.bench.hart.Memory;
import polymetron.bench.hart.MemoryExhausted;
import polymetron.bench.hart.MemoryShare;
import polymetron.bench.hart.PagedRam;
import polymetron.bench.hart.Ram;
import polymetron.bus.Protocol;
import polymetron.cost.AccessCost;
import polymetron.elaborate.AddressSpace;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.InterfaceRef;
import polymetron.elaborate.TargetRange;
import polymetron.output.image.LoadedPiece;

/** What each initiator finds at its addresses, and the memories behind them: each is one, whoever sees it where. */
final class AddressMaps {
    /** Larger memories come into being page by page, and so do all once whole ones come to so many. */
    private static final long LARGEST_WHOLE = 16L << 20;

    private static final long MOST_TOUCHED = 128L << 20;

    /** What is in a flash before anything is written. */
    private static final byte ONES = (byte) 0xFF;

    private final ElaboratedPlatform platform;
    private final Map<InterfaceRef, BlockModel> models;

    /** By block: a memory with several ports is one memory. */
    private final Map<String, Memory> memories = new LinkedHashMap<>();

    private final MemoryShare share;
    private long whole;

    AddressMaps(
            ElaboratedPlatform platform, Map<InterfaceRef, BlockModel> models, MemoryShare share) {
        this.share = share;
        this.platform = platform;
        this.models = models;
    }

    /**
     * What is at the addresses of an initiator.
     *
     * @param counts whether accesses take cycles
     */
    BusMap of(ElaboratedBlock block, String side, boolean counts) {
        List<BusMap.Entry> entries = new ArrayList<>();
        AddressSpace space = platform.space(new InterfaceRef(block.name(), side)).orElse(null);
        if (space == null) {
            return new BusMap(entries);
        }
        for (TargetRange target : space.ranges()) {
            add(
                    entries,
                    target,
                    counts ? cycles(AccessCost.of(platform, space, target)) : AccessCycles.NONE);
        }
        return new BusMap(
                entries,
                counts ? cycles(AccessCost.ofNothing(platform, space)) : AccessCycles.NONE);
    }

    /** Through a crossing the middle of what it may be. */
    private static AccessCycles cycles(AccessCost cost) {
        return new AccessCycles(
                (int) cost.single().middle(),
                (int) cost.write().middle(),
                (int) cost.answer().middle(),
                (int) cost.next().middle(),
                (int) cost.nextWrite().middle(),
                cost.onceCycles() > 0 ? Protocol.AXI4.answerCycles() : 0,
                (int) (cost.single().middle() + (cost.burst() - 1) * cost.nextCycles()));
    }

    private void add(List<BusMap.Entry> entries, TargetRange target, AccessCycles cycles) {
        int base = (int) target.range().base();
        int last = (int) target.range().last();
        if (target.form().isMemory()) {
            entries.addAll(memory(target).at(base, last, cycles));
        } else if (models.containsKey(target.ref())) {
            entries.add(new BusMap.Entry(base, last, models.get(target.ref()), cycles));
        }
    }

    private Memory memory(TargetRange target) {
        long size = target.form().sizeBytes();
        boolean writable = target.form().isWritable();
        byte blank = flash(target.block().name()).isPresent() ? ONES : 0;
        return memories.computeIfAbsent(
                target.block().name(),
                ref -> {
                    if (whole + size > LARGEST_WHOLE) {
                        return new PagedRam(size, writable, MOST_TOUCHED, blank, share);
                    }
                    whole += size;
                    try {
                        return new Ram((int) size, writable, blank, share);
                    } catch (MemoryExhausted exhausted) {
                        throw new BenchException(exhausted.getMessage());
                    }
                });
    }

    private Optional<FlashControllerModel> flash(String block) {
        return models.entrySet().stream()
                .filter(entry -> entry.getKey().block().equals(block))
                .map(Map.Entry::getValue)
                .filter(FlashControllerModel.class::isInstance)
                .map(FlashControllerModel.class::cast)
                .findFirst();
    }

    /**
     * Puts the chips of the board on flash controllers; their bytes are those that the memory range shows.
     *
     * @param changed told when a chip has changed them
     */
    void connectChips(Runnable changed) {
        memories.forEach(
                (block, memory) ->
                        flash(block)
                                .filter(model -> isOnBoard(block))
                                .ifPresent(model -> model.connect(memory, changed)));
    }

    /** Whether a part of the board is on a block. */
    private boolean isOnBoard(String block) {
        return platform.outward().stream()
                .anyMatch(link -> link.part() != null && link.block().name().equals(block));
    }

    /** Keeps from now on which bytes were written. */
    void keepMarks() {
        memories.values().forEach(Memory::keepMarks);
    }

    /** Back to power-up; what is in a flash stays there. */
    void clear() {
        memories.forEach(
                (block, memory) -> {
                    if (flash(block).isEmpty()) {
                        memory.clear();
                    }
                });
    }

    /**
     * Puts bytes of a program in.
     *
     * @throws BenchException when the memory cannot be had
     */
    void put(LoadedPiece piece) {
        try {
            memories.get(piece.memory().block().name()).load(piece.offset(), piece.bytes());
        } catch (MemoryExhausted exhausted) {
            throw new BenchException(exhausted.getMessage());
        }
    }
}
