package polymetron.cost;

import polymetron.bus.Adapters;
import polymetron.elaborate.ElaboratedBus;
import polymetron.elaborate.InitiatorPort;
import polymetron.elaborate.InterfaceRef;
import polymetron.elaborate.TargetRange;

/**
 * Where accesses of an initiator are made bursts. Its own end makes them where it speaks AXI4; an adapter between it and the bus
 * takes them apart again, and so does the end of the target.
 */
public final class Bursts {
    private Bursts() {}

    /** Transfers of the longest burst that the end of an initiator makes; 1 where it makes none. */
    public static int longest(ElaboratedBus bus, InitiatorPort initiator) {
        return Adapters.spoken(initiator.form().type().protocols(), bus.bus().protocol())
                        .carriesBursts()
                ? initiator.form().burst()
                : 1;
    }

    /** Whether a burst on a bus is one up to a target on it. */
    static boolean arrive(ElaboratedBus bus, TargetRange target) {
        return bus.bus().protocol().carriesBursts() && bus.adaptersOf(target.ref()).isEmpty();
    }

    /** Transfers of the longest burst of an initiator that goes over its bus as one. */
    static int onBus(ElaboratedBus bus, InitiatorPort initiator) {
        InterfaceRef ref = initiator.ref();
        return bus.bus().protocol().carriesBursts() && bus.adaptersOf(ref).isEmpty()
                ? initiator.form().burst()
                : 1;
    }
}
