package polymetron.lookup;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import polymetron.address.AddressRange;
import polymetron.elaborate.AddressSpace;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.SeenWindow;

/**
 * Where software finds the addresses of buses behind bridges: through the windows that the first processor sees which reaches
 * them. On the bus of a processor itself both are the same.
 */
public final class SoftwareAddresses {
    private final Map<String, SeenWindow> windows = new HashMap<>();

    public SoftwareAddresses(ElaboratedPlatform platform) {
        for (AddressSpace space : platform.spaces()) {
            if (space.isDataOfProcessor()) {
                space.windows().forEach(window -> windows.putIfAbsent(window.bus(), window));
            }
        }
    }

    /** What software uses for a range of a bus; empty where it is no other one, or where the window does not show all of it. */
    public Optional<AddressRange> of(String bus, AddressRange range) {
        SeenWindow window = windows.get(bus);
        if (window == null || !window.behind().contains(range)) {
            return Optional.empty();
        }
        long by = window.range().base() - window.behind().base();
        return Optional.of(new AddressRange(range.base() + by, range.last() + by));
    }

    /** A range of a bus in the parts that software sees and that it does not, in address order. */
    public List<AddressRange> parts(String bus, AddressRange range) {
        SeenWindow window = windows.get(bus);
        AddressRange seen = window == null ? null : window.behind().part(range).orElse(null);
        if (seen == null) {
            return List.of(range);
        }
        List<AddressRange> parts = new ArrayList<>();
        if (seen.base() != range.base()) {
            parts.add(new AddressRange(range.base(), seen.base() - 1));
        }
        parts.add(seen);
        if (seen.last() != range.last()) {
            parts.add(new AddressRange(seen.last() + 1, range.last()));
        }
        return parts;
    }
}
