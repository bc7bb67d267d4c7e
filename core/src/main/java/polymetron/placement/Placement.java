package polymetron.placement;

import java.util.List;
import java.util.Objects;
import java.util.Optional;
import polymetron.address.Address;
import polymetron.address.AddressRange;
import polymetron.address.FreeSpace;
import polymetron.elaborate.ElaboratedBus;
import polymetron.elaborate.InterfaceRef;
import polymetron.elaborate.SizedInterface;
import polymetron.elaborate.TargetRange;

/**
 * Finds a base for a new range. The policy, in this order:
 *
 * <ol>
 *   <li>a range whose definition fixes its place goes there or nowhere;
 *   <li>memories from the bottom, registers from the middle of the space (from 0x1000_0000 where the bus is wide
 *       enough); behind a bridge both from the start of its window, and from the start of what an initiator passes on
 *       where that is not everything;
 *   <li>naturally aligned, with at least the room that the protocol's bursts need;
 *   <li>so that the ranges of its sort span as few address bits as possible, which is what a decoder compares below
 *       the bits that choose the sort;
 *   <li>the lowest of what is equal.
 * </ol>
 *
 * Nothing goes where addresses are reserved, or where an initiator of the bus sees something inside its own block.
 */
public final class Placement {
    private static final long REGISTERS = 0x1000_0000L;
    private static final int WIDE = 29;

    private Placement() {}

    /**
     * A base for a target.
     *
     * @param target the target, which does not stand in its own way when it is on the bus already
     * @return empty when there is no gap of that size
     */
    public static Optional<Address> baseFor(
            ElaboratedBus bus, InterfaceRef target, SizedInterface form) {
        AddressRange peers = null;
        for (TargetRange other : bus.placed()) {
            if (!other.ref().equals(target) && isPeer(bus, form, other.form())) {
                peers = peers == null ? other.range() : peers.hull(other.range());
            }
        }
        return baseIn(bus.reachableSpaceWithout(target), bus, bus.reachable(), form, peers);
    }

    /** The lowest free base at or above a wished one, or elsewhere when there is no room above. */
    public static Optional<Address> baseNear(
            ElaboratedBus bus, InterfaceRef target, SizedInterface form, Address wished) {
        return form.place() != null
                ? baseFor(bus, target, form)
                : bus.reachableSpaceWithout(target).place(room(bus, form), wished.bits());
    }

    /** Whether two ranges of a bus belong together, so that one decoder tells them from each other. */
    static boolean isPeer(ElaboratedBus bus, SizedInterface one, SizedInterface other) {
        return isShort(bus) || one.isMemory() == other.isMemory();
    }

    /** Whether nothing on the bus needs to stand apart, because the space is short. */
    static boolean isShort(ElaboratedBus bus) {
        return bus.isBehindBridge() || !bus.window().equals(bus.addresses());
    }

    /**
     * @param window addresses that can be used
     * @param peers what the ranges of its sort span already; null without any
     */
    static Optional<Address> baseIn(
            FreeSpace free,
            ElaboratedBus bus,
            AddressRange window,
            SizedInterface form,
            AddressRange peers) {
        if (form.place() != null) {
            // It answers there and nowhere else; what is in the way has to go first.
            return Optional.of(new Address(form.place().base()))
                    .filter(base -> free.isFree(form.place()));
        }
        long anchor = anchor(bus, window, form);
        Optional<Address> above =
                Long.compareUnsigned(anchor, window.last()) > 0
                        ? Optional.empty()
                        : closest(
                                free,
                                room(bus, form),
                                new AddressRange(anchor, window.last()),
                                peers);
        return above.isPresent() ? above : closest(free, room(bus, form), window, peers);
    }

    /**
     * The lowest base in the smallest aligned region around the peers that has room. The regions around a range are
     * each within the next, so the first that has room is the best; time is the number of gaps times the address bits.
     */
    private static Optional<Address> closest(
            FreeSpace free, long room, AddressRange within, AddressRange peers) {
        long alignment = Address.powerOfTwoAtLeast(room);
        if (peers != null) {
            for (int bits = peers.spanBits(); bits < Long.SIZE; bits++) {
                Optional<AddressRange> part = peers.regionOf(bits).part(within);
                if (part.isPresent()
                        && Long.compareUnsigned(part.get().last() - part.get().base(), room - 1)
                                >= 0) {
                    Optional<Address> base = free.place(room, alignment, part.get());
                    if (base.isPresent()) {
                        return base;
                    }
                }
                if (part.isPresent() && part.get().equals(within)) {
                    return Optional.empty();
                }
            }
        }
        return free.place(room, alignment, within);
    }

    /** Where ranges of a sort begin. */
    static long anchor(ElaboratedBus bus, AddressRange window, SizedInterface form) {
        if (isShort(bus)) {
            return window.base();
        }
        Optional<AddressRange> passedOn =
                bus.initiators().stream()
                        .map(initiator -> initiator.form().place())
                        .filter(Objects::nonNull)
                        .findFirst();
        if (passedOn.isPresent()) {
            return passedOn.get().base();
        }
        int addressWidth = bus.bus().addressWidth();
        long registers = addressWidth >= WIDE ? REGISTERS : 1L << (addressWidth - 1);
        return form.isMemory() ? 0 : registers;
    }

    /** Bytes to keep free: where bursts must not run from one target into the next, at least to the boundary. */
    static long room(ElaboratedBus bus, SizedInterface form) {
        long boundary = bus.bus().protocol().burstBoundaryBytes();
        return Math.max(form.sizeBytes(), boundary);
    }

    /** What several ranges span together; null for none. */
    static AddressRange hull(List<AddressRange> ranges) {
        return ranges.stream().reduce(AddressRange::hull).orElse(null);
    }
}
