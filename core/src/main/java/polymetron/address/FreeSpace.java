package polymetron.address;

import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Optional;

/**
 * What is left of a window beside the ranges in it, and where the next range goes. Linear in the number of
 * ranges after sorting them.
 */
public final class FreeSpace {
    private final AddressRange window;
    private final List<AddressRange> gaps;

    public FreeSpace(AddressRange window, Collection<AddressRange> taken) {
        this.window = window;
        this.gaps = gaps(window, taken.stream().sorted().toList());
    }

    /** The free ranges in ascending order. */
    public List<AddressRange> gaps() {
        return gaps;
    }

    /**
     * The lowest free base within a range.
     *
     * @param alignment a power of two that the base is to be a multiple of
     */
    public Optional<Address> place(long sizeBytes, long alignment, AddressRange within) {
        for (AddressRange gap : gaps) {
            if (Long.compareUnsigned(gap.last(), within.base()) < 0) {
                continue;
            }
            if (Long.compareUnsigned(gap.base(), within.last()) > 0) {
                break;
            }
            AddressRange room = gap.part(within).orElseThrow();
            Optional<Address> base = Address.alignUp(room.base(), alignment);
            if (base.isPresent()
                    && room.contains(base.get().bits())
                    && Long.compareUnsigned(room.last() - base.get().bits(), sizeBytes - 1) >= 0) {
                return base;
            }
        }
        return Optional.empty();
    }

    /**
     * The lowest free base at or above a preferred one, aligned to the size rounded up to a power of two, so that
     * an address decoder needs to compare the upper address bits only. When there is none above, the lowest one
     * anywhere.
     */
    public Optional<Address> place(long sizeBytes, long preferredBase) {
        long alignment = Address.powerOfTwoAtLeast(sizeBytes);
        Optional<Address> above =
                Long.compareUnsigned(preferredBase, window.last()) > 0
                        ? Optional.empty()
                        : place(
                                sizeBytes,
                                alignment,
                                new AddressRange(preferredBase, window.last()));
        return above.isPresent() ? above : place(sizeBytes, alignment, window);
    }

    /** Whether nothing lies in a range. */
    public boolean isFree(AddressRange range) {
        return gaps.stream().anyMatch(gap -> gap.contains(range));
    }

    private static List<AddressRange> gaps(AddressRange window, List<AddressRange> sorted) {
        List<AddressRange> gaps = new ArrayList<>();
        long next = window.base();
        for (AddressRange range : sorted) {
            if (!range.overlaps(window)) {
                continue;
            }
            if (Long.compareUnsigned(range.base(), next) > 0) {
                gaps.add(new AddressRange(next, range.base() - 1));
            }
            if (Long.compareUnsigned(range.last(), window.last()) >= 0) {
                return List.copyOf(gaps);
            }
            if (Long.compareUnsigned(range.last(), next) >= 0) {
                next = range.last() + 1;
            }
        }
        gaps.add(new AddressRange(next, window.last()));
        return List.copyOf(gaps);
    }
}
