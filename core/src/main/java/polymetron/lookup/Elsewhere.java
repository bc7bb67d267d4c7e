package polymetron.lookup;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import polymetron.elaborate.AddressSpace;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.InterfaceRef;
import polymetron.elaborate.TargetRange;

/**
 * Targets that are not at one address for everybody. A pointer that a processor gives to a data mover then has to be
 * translated, and two addresses for one thing confuse caches. Time is linear in what the initiators see.
 */
public final class Elsewhere {
    private final Map<InterfaceRef, List<Sighting>> sightings = new HashMap<>();

    /** A target as one initiator sees it. */
    public record Sighting(AddressSpace space, TargetRange target) {}

    public Elsewhere(ElaboratedPlatform platform) {
        // On one bus everybody sees a target at the same address.
        long buses =
                platform.spaces().stream()
                        .map(space -> space.bus() == null ? "" : space.bus().name())
                        .distinct()
                        .count();
        if (buses <= 1) {
            return;
        }
        for (AddressSpace space : platform.spaces()) {
            for (TargetRange target : space.ranges()) {
                sightings
                        .computeIfAbsent(target.ref(), ref -> new ArrayList<>())
                        .add(new Sighting(space, target));
            }
        }
        sightings.values().removeIf(Elsewhere::isOne);
    }

    private static boolean isOne(List<Sighting> all) {
        long base = all.getFirst().target().range().base();
        return all.stream().allMatch(each -> each.target().range().base() == base);
    }

    /** Targets at several addresses, each with all who see it; in no certain order. */
    public Map<InterfaceRef, List<Sighting>> all() {
        return sightings;
    }

    /** Who sees a target at another address than this one. */
    public List<Sighting> than(TargetRange seen) {
        return sightings.getOrDefault(seen.ref(), List.of()).stream()
                .filter(each -> each.target().range().base() != seen.range().base())
                .toList();
    }
}
