package polymetron.library;

/**
 * A clock input of a block.
 *
 * @param minimumHz lowest frequency that the block works at; null for none
 * @param maximumHz highest frequency that the block works at; null for none
 */
public record ClockInput(String name, Long minimumHz, Long maximumHz) {}
