package polymetron.fit;

import java.util.Comparator;
import java.util.List;

/**
 * How much of one thing a platform needs and the device has.
 *
 * @param name what it is, such as {@code lookup tables}
 * @param available how many the device has
 * @param uncertaintyPercent how far the sum may be off, either way; 0 for what is counted
 * @param shares who needs how many, in any order; read, the most comes first
 */
public record Amount(String name, long available, int uncertaintyPercent, List<Share> shares) {

    /**
     * What one block, bus or adapter needs.
     *
     * @param block block that it is or belongs to; null for a bus or a clock
     */
    public record Share(String who, String block, long count) {}

    /** Who needs how many, the most first. Sorted when it is read, because most readers want the sum only. */
    @Override
    public List<Share> shares() {
        return shares.stream()
                .sorted(Comparator.comparingLong(Share::count).reversed().thenComparing(Share::who))
                .toList();
    }

    public long used() {
        return shares.stream().mapToLong(Share::count).sum();
    }

    /** Whether it fits even when the estimate is too low by its uncertainty. */
    public boolean surelyFits() {
        return used() * (100 + uncertaintyPercent) <= available * 100;
    }

    public boolean fits() {
        return used() <= available;
    }
}
