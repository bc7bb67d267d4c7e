package polymetron.placement;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import polymetron.address.Address;
import polymetron.address.AddressRange;
import polymetron.elaborate.ElaboratedBus;
import polymetron.elaborate.TargetRange;

/**
 * A range for which a bus has no place.
 *
 * @param slot the place where the least is in the way; null when the range is larger than all that can be used
 * @param inTheWay what lies there, in address order, in words
 */
public record Unplaceable(TargetRange target, AddressRange slot, List<String> inTheWay) {
    private record Obstacle(AddressRange range, String words) {}

    static Unplaceable of(
            ElaboratedBus bus, AddressRange window, TargetRange target, List<TargetRange> around) {
        List<Obstacle> obstacles = new ArrayList<>();
        for (TargetRange other : around) {
            String state =
                    other.held() ? " (held)" : other.form().place() != null ? " (fixed)" : "";
            obstacles.add(new Obstacle(other.range(), other.label() + state));
        }
        bus.kept().forEach(each -> obstacles.add(new Obstacle(each.range(), each.what())));
        obstacles.sort(Comparator.comparing(Obstacle::range));
        if (target.form().place() != null) {
            return new Unplaceable(
                    target, target.form().place(), words(obstacles, target.form().place()));
        }
        long room = Placement.room(bus, target.form());
        int bits = Long.numberOfTrailingZeros(Address.powerOfTwoAtLeast(room));
        // Whatever has no place is blocked everywhere, so the places around the obstacles are all
        // there are.
        Unplaceable best = new Unplaceable(target, null, List.of());
        for (Obstacle obstacle : obstacles) {
            for (long at : new long[] {obstacle.range().base(), obstacle.range().last()}) {
                AddressRange slot = slot(at, bits, room);
                if (window.contains(slot)) {
                    List<String> words = words(obstacles, slot);
                    if (best.slot == null || words.size() < best.inTheWay.size()) {
                        best = new Unplaceable(target, slot, words);
                    }
                }
            }
        }
        return best;
    }

    private static AddressRange slot(long at, int bits, long room) {
        return AddressRange.of(new AddressRange(at, at).regionOf(bits).base(), room);
    }

    private static List<String> words(List<Obstacle> obstacles, AddressRange slot) {
        return obstacles.stream()
                .filter(each -> each.range().overlaps(slot))
                .map(Obstacle::words)
                .toList();
    }

    public String label() {
        return target.label();
    }

    /** Why there is no place, in a sentence. */
    public String why(ElaboratedBus bus) {
        String needs =
                "%s needs %s that begin at a multiple of it"
                        .formatted(label(), Address.formatSize(Placement.room(bus, target.form())));
        if (slot == null) {
            return "%s, and %s has room from %s only".formatted(needs, bus.name(), bus.window());
        }
        int most = 4;
        String listed = String.join(", ", inTheWay.subList(0, Math.min(most, inTheWay.size())));
        String more =
                inTheWay.size() > most ? " and %s more".formatted(inTheWay.size() - most) : "";
        return "%s; at %s there is %s in the way".formatted(needs, slot, listed + more);
    }

    /** Address bits with which the bus would have a place above all that is there; empty when 64 are not enough. */
    public Optional<Integer> neededAddressBits(ElaboratedBus bus) {
        AddressRange all = bus.addresses();
        for (int bits = bus.bus().addressWidth() + 1; bits <= Long.SIZE; bits++) {
            long base = all.last() + 1;
            Optional<Address> aligned =
                    Address.alignUp(
                            base, Address.powerOfTwoAtLeast(Placement.room(bus, target.form())));
            if (aligned.isPresent()
                    && AddressRange.ofWidth(bits)
                            .contains(
                                    AddressRange.of(
                                            aligned.get().bits(),
                                            Placement.room(bus, target.form())))) {
                return Optional.of(bits);
            }
        }
        return Optional.empty();
    }
}
