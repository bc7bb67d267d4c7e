package polymetron.elaborate;

import polymetron.library.Board;
import polymetron.platform.ClockDomain;

/**
 * A clock domain with its source on the board.
 *
 * @param clock null when the board has no clock of that name
 * @param reset null when the domain has no reset, or the board has none of that name
 */
public record Domain(ClockDomain domain, Board.Clock clock, Board.Reset reset) {
    public String name() {
        return domain.name();
    }

    /** Frequency in hertz; 0 when there is no clock. */
    public long frequencyHz() {
        return clock == null ? 0 : clock.frequencyHz();
    }
}
