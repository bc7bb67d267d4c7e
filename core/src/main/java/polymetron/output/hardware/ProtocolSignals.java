package polymetron.output.hardware;

import java.util.List;
import polymetron.bus.Protocol;

/** The signals of bus protocols by their names, for what is made outside of this package. */
public final class ProtocolSignals {
    private ProtocolSignals() {}

    /** In the order in which ports have them. */
    public static List<String> names(Protocol protocol) {
        return Signals.of(protocol).stream().map(Signal::name).toList();
    }

    private static Signal signal(Protocol protocol, String name) {
        return Signals.of(protocol).stream()
                .filter(each -> each.name().equals(name))
                .findFirst()
                .orElseThrow();
    }

    /** Whether an initiator drives a signal, or else the target. */
    public static boolean isOfInitiator(Protocol protocol, String name) {
        return signal(protocol, name).fromInitiator();
    }

    /** Whether a signal is an address, whose bits the bus decides. */
    public static boolean isAddress(Protocol protocol, String name) {
        return signal(protocol, name).width() == Signal.Width.ADDRESS;
    }

    public static int bits(Protocol protocol, String name, int addressBits, int dataBits) {
        return signal(protocol, name).bits(addressBits, dataBits);
    }
}
