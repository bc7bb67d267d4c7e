package polymetron.elaborate;

import java.util.List;
import java.util.Optional;
import polymetron.address.AddressRange;
import polymetron.library.Capability;

/**
 * What one initiator sees: the targets it reaches in address order. An initiator that fetches instructions
 * reaches executable memory only.
 *
 * @param bus bus that it is on; null for one that sees the inside of its block only
 * @param hidden targets that it could reach, but that the user hid from it
 * @param windows windows of bridges that it sees, in address order
 */
public record AddressSpace(
        InitiatorPort initiator,
        ElaboratedBus bus,
        List<TargetRange> ranges,
        List<TargetRange> hidden,
        List<SeenWindow> windows) {

    /** Addresses that are looked at: those of the bus, as far as anything can be there. */
    public AddressRange window() {
        if (bus == null) {
            return AddressRange.ofWidth(32);
        }
        return initiator.seesInside() ? bus.addresses() : bus.window();
    }

    /** Whether it is what a processor loads and stores through. */
    public boolean isDataOfProcessor() {
        return initiator.block().type().provides(Capability.Hart.class).stream()
                .anyMatch(hart -> hart.data().equals(initiator.form().name()));
    }

    /** The target at an address; the one with the lower base where ranges overlap. */
    public Optional<TargetRange> at(long address) {
        // Overlaps are rare and an error, so the walk back over ranges that begin below is short in
        // practice.
        int low = 0;
        int high = ranges.size();
        while (low < high) {
            int middle = (low + high) >>> 1;
            if (Long.compareUnsigned(ranges.get(middle).range().base(), address) <= 0) {
                low = middle + 1;
            } else {
                high = middle;
            }
        }
        TargetRange found = null;
        for (int at = low - 1; at >= 0; at--) {
            if (ranges.get(at).range().contains(address)) {
                found = ranges.get(at);
            } else if (found != null) {
                break;
            }
        }
        return Optional.ofNullable(found);
    }
}
