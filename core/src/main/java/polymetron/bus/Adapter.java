package polymetron.bus;

/**
 * Something between an interface and a bus that differ.
 *
 * @param from what the interface has
 * @param to what the bus has
 * @param cycles clock cycles that it adds to a single access; for a clock, beside those of the crossing itself
 * @param parts accesses on the narrow side for one on the wide side, where a wide access is made of narrow ones; else 1
 * @param lookupTables estimated logic
 * @param flipFlops estimated flip-flops
 */
public record Adapter(
        Sort sort, String from, String to, int cycles, int parts, int lookupTables, int flipFlops) {

    /** The same with the end in front of it, through which an access comes. */
    Adapter withEnd(int endCycles, BusEndSize end) {
        return new Adapter(
                sort,
                from,
                to,
                endCycles,
                parts,
                lookupTables + end.lookupTables(),
                flipFlops + end.flipFlops());
    }

    /** What differs. */
    public enum Sort {
        PROTOCOL("protocol"),
        WIDTH("width"),
        CLOCK("clock");

        private final String word;

        Sort(String word) {
            this.word = word;
        }

        @Override
        public String toString() {
            return word;
        }
    }
}
