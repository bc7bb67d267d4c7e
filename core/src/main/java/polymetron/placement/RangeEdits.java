package polymetron.placement;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import polymetron.address.Address;
import polymetron.address.AddressRange;
import polymetron.address.FreeSpace;
import polymetron.edit.Edit;
import polymetron.edit.RejectedEdit;
import polymetron.elaborate.ElaboratedBus;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.InterfaceRef;
import polymetron.elaborate.TargetRange;

/**
 * Exact changes of ranges: let one end at an address, take the nearest legal place, swap two, shift several. Each gives an
 * edit to look at, or says what does not go.
 */
public final class RangeEdits {
    private final ElaboratedPlatform platform;

    public RangeEdits(ElaboratedPlatform platform) {
        this.platform = platform;
    }

    private record OnBus(ElaboratedBus bus, TargetRange target) {
        private Edit at(long base) {
            return new Edit.Attach(
                    target.block().name(),
                    target.form().name(),
                    bus.name(),
                    new Address(base),
                    target.held());
        }
    }

    /**
     * Lets a range end at an address: by another size where the size is a parameter, by another base otherwise.
     *
     * @throws RejectedEdit when that is not possible
     */
    public Edit endAt(InterfaceRef ref, Address last) {
        OnBus here = placed(ref);
        TargetRange target = here.target();
        Optional<String> parameter = target.form().sizeParameter();
        if (parameter.isPresent()) {
            if (Long.compareUnsigned(last.bits(), target.range().base()) < 0) {
                throw new RejectedEdit(
                        "last",
                        "%s begins at %s and cannot end at %s before it"
                                .formatted(
                                        target.label(),
                                        Address.format(target.range().base()),
                                        last));
            }
            long size = last.bits() - target.range().base() + 1;
            return new Edit.SetParameter(
                    target.block().name(), parameter.get(), Long.toUnsignedString(size));
        }
        long size = target.form().sizeBytes();
        if (Long.compareUnsigned(last.bits(), size - 1) < 0) {
            throw new RejectedEdit(
                    "last",
                    "%s has %s, so it ends at %s at the lowest"
                            .formatted(
                                    target.label(),
                                    Address.formatSize(size),
                                    Address.format(size - 1)));
        }
        return here.at(last.bits() - size + 1);
    }

    /**
     * Moves a range to the legal base nearest to an address: aligned, within the bus, and free.
     *
     * @throws RejectedEdit when there is none
     */
    public Edit snap(InterfaceRef ref, Address wished) {
        OnBus here = onBus(ref);
        if (here.target().form().place() != null) {
            return here.at(here.target().form().place().base());
        }
        long room = Placement.room(here.bus(), here.target().form());
        long alignment = Address.powerOfTwoAtLeast(room);
        FreeSpace free = here.bus().freeSpaceWithout(ref);
        return nearest(free, room, alignment, wished.bits())
                .map(base -> here.at(base.bits()))
                .orElseThrow(
                        () ->
                                new RejectedEdit(
                                        "base",
                                        "%s has no gap of %s"
                                                .formatted(
                                                        here.bus().name(),
                                                        Address.formatSize(room))));
    }

    /** The free base nearest to an address; the lower one of two at the same distance. */
    private static Optional<Address> nearest(
            FreeSpace free, long room, long alignment, long wished) {
        Address best = null;
        for (AddressRange gap : free.gaps()) {
            for (long from : new long[] {gap.base(), wished & -alignment, wished}) {
                if (!gap.contains(from)) {
                    continue;
                }
                Optional<Address> base =
                        free.place(room, alignment, new AddressRange(from, gap.last()));
                if (base.isPresent() && isNearer(base.get(), best, wished)) {
                    best = base.get();
                }
            }
            // The highest base of the gap, for a gap below the address.
            long highest = gap.last() - (room - 1) & -alignment;
            if (Long.compareUnsigned(gap.last() - gap.base(), room - 1) >= 0
                    && gap.contains(highest)
                    && isNearer(new Address(highest), best, wished)) {
                best = new Address(highest);
            }
        }
        return Optional.ofNullable(best);
    }

    private static boolean isNearer(Address base, Address best, long wished) {
        return best == null
                || Long.compareUnsigned(
                                distance(base.bits(), wished), distance(best.bits(), wished))
                        < 0;
    }

    private static long distance(long one, long other) {
        return Long.compareUnsigned(one, other) >= 0 ? one - other : other - one;
    }

    /**
     * Lets two ranges of a bus change places. The lower one ends up where the upper one ends when they lie side by side, so
     * that ranges of different size meet as before.
     *
     * @throws RejectedEdit when they are not on one bus, one is held, or the places do not fit
     */
    public Edit swap(InterfaceRef one, InterfaceRef other) {
        OnBus first = free(one);
        OnBus second = free(other);
        if (!first.bus().name().equals(second.bus().name())) {
            throw new RejectedEdit(
                    "targets",
                    "%s is on %s and %s on %s; only ranges of one bus can change places"
                            .formatted(
                                    first.target().label(),
                                    first.bus().name(),
                                    second.target().label(),
                                    second.bus().name()));
        }
        boolean inOrder = first.target().range().compareTo(second.target().range()) <= 0;
        OnBus lower = inOrder ? first : second;
        OnBus upper = inOrder ? second : first;
        long upperTo = lower.target().range().base();
        long lowerTo = upper.target().range().base();
        boolean adjacent = lower.target().range().last() + 1 == lowerTo;
        if (adjacent) {
            lowerTo = upperTo + upper.target().form().sizeBytes();
        }
        List<OnBus> both = List.of(lower, upper);
        checkFree(both, List.of(lowerTo, upperTo));
        return new Edit.Several(
                "swap %s and %s".formatted(first.target().label(), second.target().label()),
                List.of(lower.at(lowerTo), upper.at(upperTo)));
    }

    /**
     * Moves several ranges by the same distance.
     *
     * @param up whether to higher addresses
     * @throws RejectedEdit when one is held, leaves its bus or meets what stays
     */
    public Edit shift(List<InterfaceRef> refs, Address distance, boolean up) {
        if (refs.isEmpty()) {
            throw new RejectedEdit("targets", "choose the ranges to shift");
        }
        List<OnBus> moved = refs.stream().distinct().map(this::free).toList();
        List<Long> bases = new ArrayList<>();
        List<Edit> edits = new ArrayList<>();
        for (OnBus each : moved) {
            AddressRange range = each.target().range();
            long base = up ? range.base() + distance.bits() : range.base() - distance.bits();
            boolean wraps = up != Long.compareUnsigned(base, range.base()) >= 0;
            if (wraps && distance.bits() != 0) {
                throw new RejectedEdit(
                        "by",
                        "%s would pass %s"
                                .formatted(each.target().label(), up ? "64 bits" : "address 0"));
            }
            bases.add(base);
            edits.add(each.at(base));
        }
        checkFree(moved, bases);
        String what =
                moved.size() == 1 ? moved.getFirst().target().label() : moved.size() + " ranges";
        return new Edit.Several(
                "shift %s %s by %s"
                        .formatted(what, up ? "up" : "down", Address.formatSize(distance.bits())),
                edits);
    }

    /** Whether all new places lie within their bus, apart from each other and from what stays. */
    private static void checkFree(List<OnBus> moved, List<Long> bases) {
        List<AddressRange> places = new ArrayList<>();
        for (int at = 0; at < moved.size(); at++) {
            OnBus each = moved.get(at);
            AddressRange place = AddressRange.of(bases.get(at), each.target().form().sizeBytes());
            boolean cut = place.sizeBytes() != each.target().form().sizeBytes();
            if (cut || !each.bus().window().contains(place)) {
                throw new RejectedEdit(
                        "by",
                        "%s would lie at %s, outside %s of %s"
                                .formatted(
                                        each.target().label(),
                                        place,
                                        each.bus().window(),
                                        each.bus().name()));
            }
            for (int before = 0; before < at; before++) {
                if (moved.get(before).bus() == each.bus() && places.get(before).overlaps(place)) {
                    throw new RejectedEdit(
                            "targets",
                            "%s and %s would overlap at %s"
                                    .formatted(
                                            moved.get(before).target().label(),
                                            each.target().label(),
                                            place));
                }
            }
            places.add(place);
            for (TargetRange other : each.bus().placed()) {
                boolean moves =
                        moved.stream().anyMatch(one -> one.target().ref().equals(other.ref()));
                if (!moves && other.range().overlaps(place)) {
                    throw new RejectedEdit(
                            "targets",
                            "%s would lie at %s, where %s is"
                                    .formatted(each.target().label(), place, other.label()));
                }
            }
        }
    }

    private OnBus free(InterfaceRef ref) {
        OnBus here = placed(ref);
        if (here.target().held()) {
            throw new RejectedEdit(
                    "targets", "%s is locked; unlock it first".formatted(here.target().label()));
        }
        return here;
    }

    private OnBus placed(InterfaceRef ref) {
        OnBus here = onBus(ref);
        if (!here.target().isPlaced()) {
            throw new RejectedEdit(
                    "targets", "%s has no address yet".formatted(here.target().label()));
        }
        return here;
    }

    private OnBus onBus(InterfaceRef ref) {
        for (ElaboratedBus bus : platform.buses()) {
            for (List<TargetRange> targets : List.of(bus.placed(), bus.unplaced())) {
                for (TargetRange target : targets) {
                    if (target.ref().equals(ref)) {
                        return new OnBus(bus, target);
                    }
                }
            }
        }
        throw new RejectedEdit("targets", "there is no target %s on a bus".formatted(ref));
    }
}
