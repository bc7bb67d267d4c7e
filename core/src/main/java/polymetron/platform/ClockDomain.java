package polymetron.platform;

/**
 * A clock domain.
 *
 * @param clock the board's clock that it runs on
 * @param reset the board's reset that it is reset by, synchronised to the clock; null for none
 */
public record ClockDomain(String name, String clock, String reset) {}
