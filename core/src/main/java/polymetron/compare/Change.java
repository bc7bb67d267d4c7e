package polymetron.compare;

/**
 * One thing that differs between two platforms.
 *
 * @param sort what sort of thing
 * @param subject what it is about, such as {@code lamps.WIDTH}
 * @param before as it was; null for something new
 * @param after as it is; null for something that is gone
 */
public record Change(Sort sort, String subject, String before, String after) {

    /** What sort of thing differs. */
    public enum Sort {
        PLATFORM("platform"),
        DOMAIN("clock domain"),
        BUS("bus"),
        BLOCK("block"),
        GROUP("group"),
        PARAMETER("parameter"),
        ATTACHMENT("bus attachment"),
        ADDRESS("address"),
        STREAM("stream"),
        INTERRUPT("interrupt"),
        CLOCK("clock or reset"),
        OUTWARD("board part or pins"),
        ACCEPTED("accepted finding");

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
