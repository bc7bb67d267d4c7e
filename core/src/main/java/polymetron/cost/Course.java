package polymetron.cost;

/**
 * What an access takes from a place on its way to the end and back, in cycles of the clock at that place.
 *
 * @param read a read, without other traffic on the way
 * @param write a write, likewise
 * @param answer the part of it after the target did what was asked: until the answer is here
 * @param worst a read or write while all others keep the way as busy as they can; without an end where others go first
 */
record Course(Span read, Span write, Span answer, Span worst) {
    /**
     * At the target itself.
     *
     * @param cycles from the request to the answer
     * @param answered how many of them come after the last one in which the target can do it
     */
    static Course of(double cycles, double answered) {
        Span all = Span.of(cycles);
        return new Course(all, all, Span.of(answered), all);
    }

    /** After cycles that the request takes. */
    Course requested(double cycles) {
        return new Course(read.plus(cycles), write.plus(cycles), answer, worst.plus(cycles));
    }

    /** Before cycles that the answer takes. */
    Course answered(double cycles) {
        return new Course(
                read.plus(cycles), write.plus(cycles), answer.plus(cycles), worst.plus(cycles));
    }

    /**
     * As several accesses, one after the other; a write passes over those that it has no bytes for in a cycle each.
     *
     * @param writesAll whether a write has bytes for all of them, or for one
     */
    Course inParts(int parts, boolean writesAll) {
        return new Course(
                read.times(parts),
                writesAll ? write.times(parts) : write.plus(parts - 1),
                answer,
                worst.times(parts));
    }

    /**
     * In another clock.
     *
     * @param perCycle cycles of the own clock in one of the other
     */
    Course crossed(double perCycle) {
        return new Course(
                read.crossed(perCycle),
                write.crossed(perCycle),
                answer.returned(perCycle),
                worst.crossed(perCycle));
    }

    /** Where the other direction may go first at the target, and after so many cycles of others on the bus. */
    Course contended(double others) {
        return new Course(read, write, answer, worst.times(2).plus(others));
    }
}
