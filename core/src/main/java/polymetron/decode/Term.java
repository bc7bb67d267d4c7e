package polymetron.decode;

import java.util.ArrayList;
import java.util.List;
import polymetron.address.AddressRange;

/**
 * One comparison of a select: an address is meant when its masked bits have the value.
 *
 * @param mask the bits that are compared
 * @param value what they have to be; 0 where the mask is
 */
public record Term(long mask, long value) {
    public boolean matches(long address) {
        return (address & mask) == value;
    }

    /** Whether an address matches both. */
    public boolean meets(Term other) {
        return ((value ^ other.value) & mask & other.mask) == 0;
    }

    public Term without(long bit) {
        return new Term(mask & ~bit, value & ~bit);
    }

    public int bits() {
        return Long.bitCount(mask);
    }

    /** Lookup tables of six inputs that compare so many bits: one for three of them and what comes before. */
    public int lookupTables() {
        return (bits() + 2) / 3;
    }

    /**
     * The fewest aligned pieces of a range, each of a power of two, from the lowest address on.
     *
     * @param addressWidth lines of the bus
     */
    public static List<Term> covering(AddressRange range, int addressWidth) {
        long lines = addressWidth >= Long.SIZE ? -1L : (1L << addressWidth) - 1;
        List<Term> terms = new ArrayList<>();
        long base = range.base();
        while (true) {
            long left = range.last() - base;
            int aligned = base == 0 ? Long.SIZE : Long.numberOfTrailingZeros(base);
            // The largest piece that begins here and ends within the range.
            int size =
                    left == -1L ? Long.SIZE : Long.SIZE - 1 - Long.numberOfLeadingZeros(left + 1);
            int bits = Math.min(aligned, size);
            long inside = bits >= Long.SIZE ? -1L : (1L << bits) - 1;
            terms.add(new Term(~inside & lines, base & ~inside & lines));
            if (Long.compareUnsigned(base + inside, range.last()) >= 0) {
                return terms;
            }
            base += inside + 1;
        }
    }
}
