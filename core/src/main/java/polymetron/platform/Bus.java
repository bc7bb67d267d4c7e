package polymetron.platform;

/**
 * A bus.
 *
 * @param protocol such as {@code axi4-lite}
 * @param dataWidth bits of a transfer
 * @param addressWidth address lines, 12 to 64
 * @param domain clock domain that the bus runs in
 * @param arbitration who goes first when several initiators want to; null for in turn
 */
public record Bus(
        String name,
        String protocol,
        int dataWidth,
        int addressWidth,
        String domain,
        Arbitration arbitration) {
    /** Who goes first. */
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

    public Bus(String name, String protocol, int dataWidth, int addressWidth, String domain) {
        this(name, protocol, dataWidth, addressWidth, domain, null);
    }

    public Bus withProtocol(String other) {
        return new Bus(name, other, dataWidth, addressWidth, domain, arbitration);
    }

    public Bus withAddressWidth(int other) {
        return new Bus(name, protocol, dataWidth, other, domain, arbitration);
    }

    /** Whether priorities of the initiators decide. */
    public boolean goesByPriority() {
        return arbitration == Arbitration.BY_PRIORITY;
    }
}
