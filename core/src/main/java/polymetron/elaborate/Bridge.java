package polymetron.elaborate;

import polymetron.address.AddressRange;

/**
 * A bridge with its parameters worked out.
 *
 * @param upstream name of the target interface that is the window
 * @param downstream name of the initiator interface behind it
 * @param window addresses of the downstream bus that the bridge reaches; null when it has no size
 */
public record Bridge(String upstream, String downstream, AddressRange window) {
    /** Whether an interface of the block only passes on what comes to the window. */
    public boolean passesOn(SizedInterface form) {
        return downstream.equals(form.name());
    }
}
