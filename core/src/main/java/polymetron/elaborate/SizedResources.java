package polymetron.elaborate;

/** What one block needs of a device, estimated by its formulas. */
public record SizedResources(long lookupTables, long flipFlops, long multipliers, long plls) {
    static final SizedResources NONE = new SizedResources(0, 0, 0, 0);
}
