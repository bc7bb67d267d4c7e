package polymetron.fit;

import java.util.List;

/**
 * How much of one thing a platform needs and the device has.
 *
 * @param name what it is, such as {@code lookup tables}
 * @param available how many the device has
 * @param uncertaintyPercent how far the sum may be off, either way; 0 for what is counted
 * @param shares who needs how many, the most first
 */
public record Amount(String name, long available, int uncertaintyPercent, List<Share> shares) {

    /**
     * What one block, bus or adapter needs.
     *
     * @param block block that it is or belongs to; null for a bus or a clock
     */
    public record Share(String who, String block, long count) {}

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
