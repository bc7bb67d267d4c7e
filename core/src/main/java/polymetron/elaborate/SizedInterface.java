package polymetron.elaborate;

import java.util.Optional;
import polymetron.address.AddressRange;
import polymetron.library.BusInterfaceType;
import polymetron.library.Role;

/**
 * A bus interface with its parameters worked out.
 *
 * @param sizeBytes size of a target's range; 0 for an initiator
 * @param isWritable whether stores change what lies behind a target
 * @param dataWidth bits of a transfer
 * @param addressWidth address bits of an initiator; 64 where those of its bus decide
 * @param burst longest burst of an initiator in transfers; 1 for single transfers
 * @param waits cycles that a target takes before it answers, beyond what the protocol takes
 * @param nextWaits the same for each further transfer of a burst
 * @param onlyFetches whether an initiator fetches instructions and moves no data, and so needs to reach executable memory
 *     only
 * @param place where a target always is, or what an initiator passes on to its bus; null for anywhere
 */
public record SizedInterface(
        BusInterfaceType type,
        long sizeBytes,
        boolean isWritable,
        int dataWidth,
        int addressWidth,
        int burst,
        long waits,
        long nextWaits,
        boolean onlyFetches,
        AddressRange place) {
    public String name() {
        return type.name();
    }

    /** That of the name, which tells interfaces of a block apart. */
    @Override
    public int hashCode() {
        return type.name().hashCode();
    }

    public boolean isTarget() {
        return type.role() == Role.TARGET;
    }

    public boolean isMemory() {
        return type.usage() == BusInterfaceType.Usage.MEMORY;
    }

    /** Whether it can be on a bus; what is inside a block cannot. */
    public boolean isForBus() {
        return !type.isInside() && (type.window() == null || place != null);
    }

    /** Address lines in hardware: those within the range of a target, and up to 32 of an initiator. */
    public int addressBits() {
        return isTarget()
                ? Long.SIZE - Long.numberOfLeadingZeros(Math.max(1, sizeBytes - 1))
                : Math.min(addressWidth, 32);
    }

    /** Bytes of the longest burst. */
    public long burstBytes() {
        return (long) burst * dataWidth / 8;
    }

    /** The parameter that is the size of a target's range; empty when the size follows from more than that. */
    public Optional<String> sizeParameter() {
        if (type.size() == null) {
            return Optional.empty();
        }
        String text = type.size().toString();
        return type.size().names().contains(text) ? Optional.of(text) : Optional.empty();
    }

    /** The same interface with another size, in bytes. */
    public SizedInterface withSize(long bytes) {
        return new SizedInterface(
                type,
                bytes,
                isWritable,
                dataWidth,
                addressWidth,
                burst,
                waits,
                nextWaits,
                onlyFetches,
                place);
    }
}
