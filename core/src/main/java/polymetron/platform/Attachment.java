package polymetron.platform;

import java.util.List;
import polymetron.address.Address;

/**
 * One bus interface on one bus.
 *
 * @param base first address of a target; null for an initiator, and for a target that has no place yet
 * @param held whether automatic placement must leave the range where it is
 * @param hidden targets that an initiator does not reach though the buses lead there, each as {@code block.interface}
 * @param priority of an initiator where priorities decide, 0 goes first; null for the last
 * @param traffic bytes a second that an initiator requires, as the user knows it; null when not specified
 */
public record Attachment(
        String bus,
        Address base,
        Boolean held,
        List<String> hidden,
        Integer priority,
        Long traffic) {
    /** Highest number of a priority; it goes last. */
    public static final int LAST_PRIORITY = 15;

    /** Most bytes a second that anybody may ask for. */
    public static final long MOST_TRAFFIC = 1_000_000_000_000L;

    public Attachment {
        hidden = hidden == null ? List.of() : List.copyOf(hidden);
    }

    public Attachment(String bus, Address base, Boolean held) {
        this(bus, base, held, null, null, null);
    }

    /** The same attachment that hides other targets. */
    public Attachment hiding(List<String> targets) {
        return new Attachment(bus, base, held, targets, priority, traffic);
    }

    public boolean staysPut() {
        return Boolean.TRUE.equals(held);
    }

    public Attachment withPriority(Integer other) {
        return new Attachment(bus, base, held, hidden, other, traffic);
    }

    public Attachment withTraffic(Long bytesPerSecond) {
        return new Attachment(bus, base, held, hidden, priority, bytesPerSecond);
    }
}
