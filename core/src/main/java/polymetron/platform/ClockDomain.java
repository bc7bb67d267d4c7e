package polymetron.platform;

/**
 * A clock domain.
 *
 * @param clock the board's clock that it runs on
 * @param reset the board's reset that it is reset by, synchronised to the clock; null for none
 * @param wantedHz requested frequency in hertz; null for none
 */
public record ClockDomain(String name, String clock, String reset, Long wantedHz) {
    public ClockDomain(String name, String clock, String reset) {
        this(name, clock, reset, null);
    }

    public ClockDomain withName(String other) {
        return new ClockDomain(other, clock, reset, wantedHz);
    }

    public ClockDomain withClock(String other) {
        return new ClockDomain(name, other, reset, wantedHz);
    }

    public ClockDomain withReset(String other) {
        return new ClockDomain(name, clock, other, wantedHz);
    }

    public ClockDomain withWantedHz(Long hertz) {
        return new ClockDomain(name, clock, reset, hertz);
    }
}
