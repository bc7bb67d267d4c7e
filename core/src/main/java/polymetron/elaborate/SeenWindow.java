package polymetron.elaborate;

import java.util.List;
import polymetron.address.AddressRange;

/**
 * The window of a bridge as an initiator sees it. Where no target is in it, an access goes out on the bus behind and finds
 * nothing there.
 *
 * @param range where it is seen
 * @param bus bus behind the bridge
 * @param behind the addresses of that bus that it shows
 * @param via bridges on the way, the one whose window it is last
 */
public record SeenWindow(AddressRange range, String bus, AddressRange behind, List<String> via) {
    /** The part of it that lies in a range, which its base is in; null when there is none. */
    SeenWindow within(AddressRange own) {
        if (!own.contains(range.base())) {
            return null;
        }
        AddressRange part = range.part(own).orElseThrow();
        return new SeenWindow(part, bus, AddressRange.of(behind.base(), part.sizeBytes()), via);
    }
}
