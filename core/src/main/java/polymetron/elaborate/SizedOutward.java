package polymetron.elaborate;

import java.util.List;
import java.util.Optional;
import polymetron.library.OutwardInterface;

/** An outward interface with its ports worked out. */
public record SizedOutward(OutwardInterface type, List<SizedPort> ports) {
    public String name() {
        return type.name();
    }

    public Optional<SizedPort> port(String name) {
        return ports.stream().filter(port -> port.name().equals(name)).findFirst();
    }
}
