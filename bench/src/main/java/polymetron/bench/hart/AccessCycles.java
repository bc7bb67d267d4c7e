package polymetron.bench.hart;

/**
 * Cycles of an access to what is in a range of addresses.
 *
 * @param read from the request to the answer
 * @param write the same of a store
 * @param answer how many of them come after the one in which the target does it
 * @param nextRead of a further read of a burst
 * @param nextWrite the same of a store
 * @param responded of a store, those that only the last one of a burst takes: its response
 * @param line to read as much as the initiator reads at once: a line of its cache
 */
public record AccessCycles(
        int read, int write, int answer, int nextRead, int nextWrite, int responded, int line) {
    /** Where nothing is known, or nothing counts. */
    public static final AccessCycles NONE = new AccessCycles(0, 0, 0);

    public AccessCycles(int read, int write, int answer) {
        this(read, write, answer, read, write, 0, read);
    }

    /** Cycles until the one in which something is read: what is there in it is what comes back. */
    int untilRead() {
        return Math.max(0, read - answer - 1);
    }

    /** Cycles until what is written can be noticed. */
    int untilWritten() {
        return Math.max(0, write - answer);
    }
}
