package polymetron.placement;

import java.util.Objects;
import java.util.Optional;
import polymetron.address.Address;
import polymetron.address.AddressRange;
import polymetron.address.FreeSpace;
import polymetron.bus.Protocol;
import polymetron.elaborate.ElaboratedBus;
import polymetron.elaborate.InterfaceRef;
import polymetron.elaborate.SizedInterface;

/**
 * Finds a base for a new range: memories from the bottom, registers from the middle of the space (from
 * 0x1000_0000 where the bus is wide enough), behind a bridge both from the start of its window, and from the start
 * of what an initiator passes on where that is not everything; naturally aligned, lowest free one first.
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
        return baseIn(bus.freeSpaceWithout(target), bus, form);
    }

    /** The lowest free base at or above a wished one, or elsewhere when there is no room above. */
    public static Optional<Address> baseNear(
            ElaboratedBus bus, InterfaceRef target, SizedInterface form, Address wished) {
        return form.place() != null
                ? baseFor(bus, target, form)
                : bus.freeSpaceWithout(target).place(room(bus, form), wished.bits());
    }

    static Optional<Address> baseIn(FreeSpace free, ElaboratedBus bus, SizedInterface form) {
        if (form.place() != null) {
            // It answers there and nowhere else; what is in the way has to go first.
            return Optional.of(new Address(form.place().base()))
                    .filter(base -> free.isFree(form.place()));
        }
        if (bus.isBehindBridge() || !bus.window().equals(bus.addresses())) {
            // The window is short, and nothing in it needs to stand apart.
            return free.place(room(bus, form), bus.window().base());
        }
        Optional<AddressRange> passedOn =
                bus.initiators().stream()
                        .map(initiator -> initiator.form().place())
                        .filter(Objects::nonNull)
                        .findFirst();
        if (passedOn.isPresent()) {
            return free.place(room(bus, form), passedOn.get().base());
        }
        int addressWidth = bus.bus().addressWidth();
        long registers = addressWidth >= WIDE ? REGISTERS : 1L << (addressWidth - 1);
        return free.place(room(bus, form), form.isMemory() ? 0 : registers);
    }

    /** Bytes to keep free: where bursts must not run from one target into the next, at least to the boundary. */
    private static long room(ElaboratedBus bus, SizedInterface form) {
        long boundary =
                Protocol.of(bus.bus().protocol()).map(Protocol::burstBoundaryBytes).orElse(0L);
        return Math.max(form.sizeBytes(), boundary);
    }
}
