package polymetron.platform;

import polymetron.address.Address;
import polymetron.address.AddressRange;

/**
 * Addresses of a bus that automatic placement keeps free, such as the place of a block that comes later.
 *
 * @param name what they are kept for
 * @param last last address, which belongs to it
 */
public record Reserved(String name, Address base, Address last) implements Comparable<Reserved> {
    /**
     * @throws IllegalArgumentException when the last address is below the base
     */
    public AddressRange range() {
        return new AddressRange(base.bits(), last.bits());
    }

    /** By base, then by name. */
    @Override
    public int compareTo(Reserved other) {
        int byBase = base.compareTo(other.base);
        return byBase != 0 ? byBase : name.compareTo(other.name);
    }
}
