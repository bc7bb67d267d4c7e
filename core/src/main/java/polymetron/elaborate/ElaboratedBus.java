package polymetron.elaborate;

import java.util.List;
import java.util.Map;
import polymetron.address.AddressRange;
import polymetron.address.FreeSpace;
import polymetron.bus.Adapter;
import polymetron.platform.Bus;

/**
 * A bus with everything attached to it.
 *
 * @param placed targets that have a place, in address order
 * @param unplaced targets that have none yet
 * @param window addresses that can be used: all of them, or behind a bridge what its window shows
 * @param adapters what stands between an interface and the bus, for those that differ
 */
public record ElaboratedBus(
        Bus bus,
        List<InitiatorPort> initiators,
        List<TargetRange> placed,
        List<TargetRange> unplaced,
        AddressRange window,
        Map<InterfaceRef, List<Adapter>> adapters) {
    public String name() {
        return bus.name();
    }

    /** All addresses that the bus has. */
    public AddressRange addresses() {
        return AddressRange.ofWidth(bus.addressWidth());
    }

    /** Whether only a bridge leads here, so that addresses count from its window. */
    public boolean isBehindBridge() {
        return !initiators.isEmpty() && initiators.stream().allMatch(InitiatorPort::isBehindBridge);
    }

    /** What stands between an interface and the bus, from the interface on. */
    public List<Adapter> adaptersOf(InterfaceRef ref) {
        return adapters.getOrDefault(ref, List.of());
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
