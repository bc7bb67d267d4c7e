package polymetron.elaborate;

import polymetron.library.BusInterfaceType;
import polymetron.library.Role;

/**
 * A bus interface with its parameters worked out.
 *
 * @param sizeBytes size of a target's range; 0 for an initiator
 * @param isWritable whether stores change what lies behind a target
 * @param dataWidth bits of a transfer
 */
public record SizedInterface(
        BusInterfaceType type, long sizeBytes, boolean isWritable, int dataWidth) {
    public String name() {
        return type.name();
    }

    public boolean isTarget() {
        return type.role() == Role.TARGET;
    }

    public boolean isMemory() {
        return type.usage() == BusInterfaceType.Usage.MEMORY;
    }
}
