package polymetron.elaborate;

import polymetron.library.Board;
import polymetron.platform.ClockDomain;

/**
 * A clock domain with where its clock and its reset come from.
 *
 * @param clock clock of the board; null when a block makes it, or nothing
 * @param reset reset of the board; null when a block makes it, or nothing
 * @param frequencyHz frequency in hertz; 0 when there is no clock
 * @param hasReset whether anything resets it
 */
public record Domain(
        ClockDomain domain,
        Board.Clock clock,
        Board.Reset reset,
        long frequencyHz,
        boolean hasReset) {
    public String name() {
        return domain.name();
    }
}
