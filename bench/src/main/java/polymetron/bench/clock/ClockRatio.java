package polymetron.bench.clock;

/**
 * The ratio of the clock of a block to that of the processor. Both begin at reset. Exact for any whole frequencies: the
 * fraction is reduced, and products stay below 2^63 as both are below 2^31.
 *
 * @param own cycles of the block in the time of so many of the processor
 * @param processor cycles of the processor in that time
 */
public record ClockRatio(long own, long processor) {
    public static final ClockRatio SAME = new ClockRatio(1, 1);

    /** The ratio of two frequencies in hertz; the same where one of them is not known. */
    public static ClockRatio of(long ownHz, long processorHz) {
        if (ownHz <= 0 || processorHz <= 0) {
            return SAME;
        }
        long divisor = greatestCommonDivisor(ownHz, processorHz);
        return new ClockRatio(ownHz / divisor, processorHz / divisor);
    }

    private static long greatestCommonDivisor(long one, long other) {
        return other == 0 ? one : greatestCommonDivisor(other, one % other);
    }

    /** Cycles of the block that have passed at a cycle of the processor. */
    public long own(long cycle) {
        return own == processor
                ? cycle
                : cycle / processor * own + cycle % processor * own / processor;
    }

    /** The first cycle of the processor at which so many cycles of the block have passed. */
    public long processor(long ownCycle) {
        if (own == processor) {
            return ownCycle;
        }
        return ownCycle / own * processor + (ownCycle % own * processor + own - 1) / own;
    }
}
