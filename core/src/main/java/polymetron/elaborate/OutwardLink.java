package polymetron.elaborate;

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
}
