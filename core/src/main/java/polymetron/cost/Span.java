package polymetron.cost;

/**
 * From the fewest to the most cycles that something takes. They differ only where a clock is crossed: how the edges of two
 * clocks lie to each other is not known.
 */
public record Span(double least, double most) {
    private static final double ROUNDING = 1e-9;

    static Span of(double cycles) {
        return new Span(cycles, cycles);
    }

    Span plus(double cycles) {
        return new Span(least + cycles, most + cycles);
    }

    Span times(double factor) {
        return new Span(least * factor, most * factor);
    }

    Span minus(Span other) {
        return new Span(least - other.least, most - other.most);
    }

    public long leastCycles() {
        return (long) Math.ceil(least - ROUNDING);
    }

    public long mostCycles() {
        return (long) Math.ceil(most - ROUNDING);
    }

    /** The whole number in the middle of it. */
    public long middle() {
        return Math.round((least + most) / 2 - ROUNDING);
    }

    /**
     * An access that begins and ends in one clock and is done in another, through the crossing of the library: a request that
     * two flip-flops of the other clock see, registered there, and an answer that two of the own clock see. The first of two flip-flops
     * sees a change up to one cycle late.
     *
     * @param perCycle cycles of the own clock in one of the other
     */
    Span crossed(double perCycle) {
        double fewest = OWN_CYCLES + Math.ceil((OTHER_CYCLES + least) * perCycle - ROUNDING);
        double longest =
                OWN_CYCLES + 1 + Math.floor((OTHER_CYCLES + 1 + most) * perCycle + ROUNDING);
        return new Span(fewest, longest);
    }

    /** The way back of it: cycles of the other clock after it was done there, and the answer that the own clock sees. */
    Span returned(double perCycle) {
        return new Span(least * perCycle + OWN_CYCLES - 1, most * perCycle + OWN_CYCLES);
    }

    /** To store the request, to see the answer in the second flip-flop, and to use it. */
    private static final int OWN_CYCLES = 3;

    /** To see the request in the second flip-flop, and to store what comes with it. */
    private static final int OTHER_CYCLES = 2;
}
