package polymetron.platform;

import java.util.ArrayList;
import java.util.List;
import polymetron.bus.Protocol;

/**
 * A bus.
 *
 * @param protocol what its interfaces speak
 * @param dataWidth bits of a transfer
 * @param addressWidth address lines, 12 to 64
 * @param domain clock domain that the bus runs in
 * @param arbitration arbitration between initiators; null for round-robin
 * @param reserved addresses that automatic placement keeps free, in address order
 */
public record Bus(
        String name,
        Protocol protocol,
        int dataWidth,
        int addressWidth,
        String domain,
        Arbitration arbitration,
        List<Reserved> reserved) {
    public Bus {
        reserved = reserved == null ? List.of() : reserved.stream().sorted().toList();
    }

    /** Arbitration. */
    public enum Arbitration {
        IN_TURN("in-turn"),
        BY_PRIORITY("by-priority");

        private final String word;

        Arbitration(String word) {
            this.word = word;
        }

        @Override
        public String toString() {
            return word;
        }
    }

    public Bus(String name, Protocol protocol, int dataWidth, int addressWidth, String domain) {
        this(name, protocol, dataWidth, addressWidth, domain, null, null);
    }

    public Bus withProtocol(Protocol other) {
        return new Bus(name, other, dataWidth, addressWidth, domain, arbitration, reserved);
    }

    public Bus withAddressWidth(int other) {
        return new Bus(name, protocol, dataWidth, other, domain, arbitration, reserved);
    }

    public Bus withDataWidth(int other) {
        return new Bus(name, protocol, other, addressWidth, domain, arbitration, reserved);
    }

    public Bus withDomain(String other) {
        return new Bus(name, protocol, dataWidth, addressWidth, other, arbitration, reserved);
    }

    public Bus withArbitration(Arbitration other) {
        return new Bus(name, protocol, dataWidth, addressWidth, domain, other, reserved);
    }

    public Bus withReserved(List<Reserved> other) {
        return new Bus(name, protocol, dataWidth, addressWidth, domain, arbitration, other);
    }

    /** The same bus with one more reservation; one of that name is replaced. */
    public Bus reserving(Reserved region) {
        List<Reserved> more = new ArrayList<>(without(region.name()).reserved());
        more.add(region);
        return withReserved(more);
    }

    public Bus without(String reservation) {
        return withReserved(
                reserved.stream().filter(each -> !each.name().equals(reservation)).toList());
    }

    /** Whether priorities of the initiators decide. */
    public boolean goesByPriority() {
        return arbitration == Arbitration.BY_PRIORITY;
    }
}
