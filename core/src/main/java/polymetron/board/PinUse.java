package polymetron.board;

import java.util.ArrayList;
import java.util.List;
import polymetron.elaborate.Domain;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.InterfaceRef;
import polymetron.elaborate.OutwardLink;
import polymetron.elaborate.SizedPort;
import polymetron.library.Board;

/**
 * One pin and the line of a port that is on it.
 *
 * @param subject what findings about the pin are about
 * @param port name of the line, such as {@code lamps.value[3]}
 */
public record PinUse(String pin, String port, Object subject) {

    /** Every pin in use: clocks, resets, board parts and pins chosen by hand. */
    public static List<PinUse> of(ElaboratedPlatform platform) {
        List<PinUse> uses = new ArrayList<>();
        List<String> sources = new ArrayList<>();
        for (Domain domain : platform.domains()) {
            // Several domains may share one oscillator or one reset button: that is one use of its
            // pin.
            if (domain.clock() != null && !sources.contains(domain.clock().pin())) {
                sources.add(domain.clock().pin());
                uses.add(new PinUse(domain.clock().pin(), domain.clock().name(), domain.name()));
            }
            if (domain.reset() != null && !sources.contains(domain.reset().pin())) {
                sources.add(domain.reset().pin());
                uses.add(new PinUse(domain.reset().pin(), domain.reset().name(), domain.name()));
            }
        }
        for (OutwardLink link : platform.outward()) {
            if (link.binding() == null) {
                continue;
            }
            for (SizedPort port : link.form().ports()) {
                addLines(uses, pins(link, port), link.ref(), port.name());
            }
        }
        return uses;
    }

    private static List<String> pins(OutwardLink link, SizedPort port) {
        if (link.part() != null) {
            return link.signal(port).map(Board.Signal::pins).orElse(List.of());
        }
        return link.binding().pins().getOrDefault(port.name(), List.of());
    }

    private static void addLines(
            List<PinUse> uses, List<String> pins, InterfaceRef ref, String port) {
        for (int line = 0; line < pins.size(); line++) {
            uses.add(
                    new PinUse(
                            pins.get(line), "%s.%s[%s]".formatted(ref.block(), port, line), ref));
        }
    }
}
