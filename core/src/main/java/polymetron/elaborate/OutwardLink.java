package polymetron.elaborate;

import java.util.Optional;
import polymetron.library.Board;
import polymetron.platform.Outward;

/**
 * An outward interface and where it goes.
 *
 * @param binding null when its ports are open
 * @param part the board part that it drives; null for pins chosen by hand, and when open
 */
public record OutwardLink(
        ElaboratedBlock block, SizedOutward form, Outward binding, Board.Part part) {
    public InterfaceRef ref() {
        return new InterfaceRef(block.name(), form.name());
    }

    /** The signal of its board part that a port goes to; empty without a part, and where it has none for the port. */
    public Optional<Board.Signal> signal(SizedPort port) {
        return part == null ? Optional.empty() : signal(form, port, part);
    }

    /**
     * The signal of a part for a port: the one of its name. Where there is one port and one signal it is that one, whatever a
     * user's logic calls its lines.
     */
    public static Optional<Board.Signal> signal(
            SizedOutward form, SizedPort port, Board.Part part) {
        boolean isOnly = form.ports().size() == 1 && part.signals().size() == 1;
        return isOnly ? Optional.of(part.signals().getFirst()) : part.signal(port.name());
    }
}
