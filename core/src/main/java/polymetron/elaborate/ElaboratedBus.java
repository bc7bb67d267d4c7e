package polymetron.elaborate;

import java.util.List;
import polymetron.address.AddressRange;
import polymetron.address.FreeSpace;
import polymetron.platform.Bus;

/**
 * A bus with everything attached to it.
 *
 * @param placed targets that have a place, in address order
 * @param unplaced targets that have none yet
 */
public record ElaboratedBus(
        Bus bus,
        List<InitiatorPort> initiators,
        List<TargetRange> placed,
        List<TargetRange> unplaced) {
    public String name() {
        return bus.name();
    }

    /** All addresses that the bus has. */
    public AddressRange window() {
        return AddressRange.ofWidth(bus.addressWidth());
    }

    public FreeSpace freeSpace() {
        return new FreeSpace(window(), placed.stream().map(TargetRange::range).toList());
    }

    /** The free space if one of the targets were not there. */
    public FreeSpace freeSpaceWithout(InterfaceRef target) {
        return new FreeSpace(
                window(),
                placed.stream()
                        .filter(other -> !other.ref().equals(target))
                        .map(TargetRange::range)
                        .toList());
    }
}
