package polymetron.hdl;

import java.util.Optional;

/** How large modules may be: more is not written by hand, and could not be connected by hand. */
final class HdlLimits {
    private static final int MOST_PORTS = 4096;
    private static final int MOST_PARAMETERS = 1000;

    private HdlLimits() {}

    /** Why a module is refused; empty for one within the limits. */
    static Optional<String> refusal(HdlModule module) {
        if (module.ports().size() > MOST_PORTS) {
            return Optional.of(
                    "module %s has %s ports; at most %s can be connected"
                            .formatted(module.name(), module.ports().size(), MOST_PORTS));
        }
        return module.parameters().size() > MOST_PARAMETERS
                ? Optional.of(
                        "module %s has more than %s parameters"
                                .formatted(module.name(), MOST_PARAMETERS))
                : Optional.empty();
    }
}
