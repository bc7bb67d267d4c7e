package polymetron.address;

import java.util.Optional;

/**
 * A non-empty run of addresses, both ends included, so that a range may reach the top of 64 bits.
 *
 * @param base first address
 * @param last last address, not below the base (unsigned)
 */
public record AddressRange(long base, long last) implements Comparable<AddressRange> {
    public AddressRange {
        if (Long.compareUnsigned(last, base) < 0) {
            throw new IllegalArgumentException(
                    "a range cannot end at %s before it begins at %s"
                            .formatted(Address.format(last), Address.format(base)));
        }
    }

    /** The range of so many bytes from the base; what would pass the top of 64 bits is cut off there. */
    public static AddressRange of(long base, long sizeBytes) {
        if (sizeBytes == 0) {
            throw new IllegalArgumentException("a range has at least one byte");
        }
        long last = base + (sizeBytes - 1);
        return new AddressRange(base, Long.compareUnsigned(last, base) < 0 ? -1L : last);
    }

    /** All addresses of a bus with so many address lines, 1 to 64. */
    public static AddressRange ofWidth(int addressWidth) {
        return new AddressRange(0, addressWidth >= 64 ? -1L : (1L << addressWidth) - 1);
    }

    /** Number of bytes; 0 stands for all 2^64 of them. */
    public long sizeBytes() {
        return last - base + 1;
    }

    public boolean contains(long address) {
        return Long.compareUnsigned(address, base) >= 0 && Long.compareUnsigned(address, last) <= 0;
    }

    public boolean contains(AddressRange other) {
        return contains(other.base) && contains(other.last);
    }

    public boolean overlaps(AddressRange other) {
        return Long.compareUnsigned(base, other.last) <= 0
                && Long.compareUnsigned(other.base, last) <= 0;
    }

    /** The smallest range that holds both. */
    public AddressRange hull(AddressRange other) {
        return new AddressRange(
                Long.compareUnsigned(base, other.base) <= 0 ? base : other.base,
                Long.compareUnsigned(last, other.last) >= 0 ? last : other.last);
    }

    /** What both have in common, if anything. */
    public Optional<AddressRange> part(AddressRange other) {
        return overlaps(other)
                ? Optional.of(
                        new AddressRange(
                                Long.compareUnsigned(base, other.base) >= 0 ? base : other.base,
                                Long.compareUnsigned(last, other.last) <= 0 ? last : other.last))
                : Optional.empty();
    }

    /** Low address bits that differ within it: the smallest aligned region that holds it has 2 to that many bytes. */
    public int spanBits() {
        return Long.SIZE - Long.numberOfLeadingZeros(base ^ last);
    }

    /** The smallest region that holds it, has a power of two of bytes and begins at a multiple of that. */
    public AddressRange region() {
        return regionOf(spanBits());
    }

    /** The aligned region of 2 to so many bytes that holds the base. */
    public AddressRange regionOf(int bits) {
        long inside = bits >= Long.SIZE ? -1L : (1L << bits) - 1;
        return new AddressRange(base & ~inside, base | inside);
    }

    /** By base, then by last address, both unsigned. */
    @Override
    public int compareTo(AddressRange other) {
        int byBase = Long.compareUnsigned(base, other.base);
        return byBase != 0 ? byBase : Long.compareUnsigned(last, other.last);
    }

    @Override
    public String toString() {
        return Address.format(base) + "–" + Address.format(last);
    }
}
