package polymetron.bench.hart;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;

/** What one side of a hart finds at which address. Lookup is a binary search over the ranges. */
public final class BusMap {
    private int[] bases = {};
    private int[] lasts = {};
    private Object[] targets = {};
    private AccessCycles[] cycles = {};
    private AccessCycles nowhere = AccessCycles.NONE;

    /** A target, its first and last address (unsigned), and what an access to it takes. */
    public record Entry(int base, int last, Object target, AccessCycles cycles) {
        public Entry(int base, int last, Object target) {
            this(base, last, target, AccessCycles.NONE);
        }
    }

    /**
     * @param entries ranges that do not overlap; each target is a {@link Ram}, a page or {@link Registers}
     */
    public BusMap(List<Entry> entries) {
        List<Entry> sorted = new ArrayList<>(entries);
        sorted.sort(Comparator.comparingLong(entry -> Integer.toUnsignedLong(entry.base())));
        bases = sorted.stream().mapToInt(Entry::base).toArray();
        lasts = sorted.stream().mapToInt(Entry::last).toArray();
        targets = sorted.stream().map(Entry::target).toArray();
        cycles = sorted.stream().map(Entry::cycles).toArray(AccessCycles[]::new);
    }

    /**
     * @param nowhere what an access takes where there is nothing
     */
    public BusMap(List<Entry> entries, AccessCycles nowhere) {
        this(entries);
        this.nowhere = nowhere;
    }

    /** Index of the range that an address is in, or -1. */
    int indexOf(int address) {
        int low = 0;
        int high = bases.length - 1;
        while (low <= high) {
            int middle = (low + high) >>> 1;
            if (Integer.compareUnsigned(address, bases[middle]) < 0) {
                high = middle - 1;
            } else if (Integer.compareUnsigned(address, lasts[middle]) > 0) {
                low = middle + 1;
            } else {
                return middle;
            }
        }
        return -1;
    }

    Object target(int index) {
        Object target = targets[index];
        return target instanceof PagedRam.Page page ? page.ram() : target;
    }

    /** Cycles of an access; the index may be -1. */
    AccessCycles cycles(int index) {
        return index < 0 ? nowhere : cycles[index];
    }

    int base(int index) {
        return bases[index];
    }
}
