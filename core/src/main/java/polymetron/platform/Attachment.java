package polymetron.platform;

import polymetron.address.Address;

/**
 * One bus interface on one bus.
 *
 * @param base first address of a target; null for an initiator, and for a target that has no place yet
 * @param held whether automatic placement must leave the range where it is
 */
public record Attachment(String bus, Address base, Boolean held) {
    public boolean staysPut() {
        return Boolean.TRUE.equals(held);
    }
}
