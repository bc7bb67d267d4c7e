package polymetron.platform;

/**
 * A bus.
 *
 * @param protocol such as {@code axi4-lite}
 * @param dataWidth bits of a transfer
 * @param addressWidth address lines, 12 to 64
 * @param domain clock domain that the bus runs in
 */
public record Bus(String name, String protocol, int dataWidth, int addressWidth, String domain) {
    public Bus withProtocol(String other) {
        return new Bus(name, other, dataWidth, addressWidth, domain);
    }

    public Bus withAddressWidth(int other) {
        return new Bus(name, protocol, dataWidth, other, domain);
    }
}
