package polymetron.bench.part;

import java.util.List;

/**
 * Something around a board that goes on by itself while it acts, a step each millisecond of the board's time. It counts in whole
 * numbers only, so that the same always happens again.
 */
public interface SurroundingModel {
    /**
     * What a person would see there.
     *
     * @param most largest value that it can have
     */
    record Reading(String name, double value, double most, String unit) {}

    /** Goes on for a millisecond. */
    void step();

    /** Back to the beginning. */
    void reset();

    List<Reading> readings();
}
