package polymetron.clock;

/**
 * A place where something goes from one clock domain into another.
 *
 * @param sort what crosses
 * @param subject what crosses: an interface, a source, a block or a reset
 * @param what from where to where
 * @param from name of the domain that it comes from; null for what follows no clock
 * @param to name of the domain that it goes into
 * @param by what makes it safe; null when nothing does
 */
public record Crossing(Sort sort, String subject, String what, String from, String to, String by) {
    /** What crosses. */
    public enum Sort {
        BUS("bus"),
        STREAM("stream"),
        INTERRUPT("interrupt"),
        RESET("reset");

        private final String word;

        Sort(String word) {
            this.word = word;
        }

        @Override
        public String toString() {
            return word;
        }
    }

    public boolean isSafe() {
        return by != null;
    }
}
