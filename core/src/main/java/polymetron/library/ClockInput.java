package polymetron.library;

/**
 * A clock input of a block.
 *
 * @param minimumHz lowest frequency that the block works at; null for none
 * @param maximumHz highest frequency that the block works at; null for none
 */
public record ClockInput(String name, Long minimumHz, Long maximumHz) {

    /** Whether a frequency is within the limits; one that is not known is not. */
    public boolean allows(long hertz) {
        return hertz > 0
                && (minimumHz == null || hertz >= minimumHz)
                && (maximumHz == null || hertz <= maximumHz);
    }
}
