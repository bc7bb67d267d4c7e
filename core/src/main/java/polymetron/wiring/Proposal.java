package polymetron.wiring;

import java.util.List;
import polymetron.edit.Edit;

/**
 * One line of a wiring plan.
 *
 * @param key identity within the plan, the same as long as the unconnected end is the same
 * @param kind sort of unconnected end
 * @param what what is connected
 * @param why why this and nothing else
 * @param edits what applying the line does; empty when the user has to choose first
 * @param choices ways to connect it that are equally good; empty when there is one best
 */
public record Proposal(
        String key, Kind kind, String what, String why, List<Edit> edits, List<Choice> choices) {

    /** Sorts of unconnected ends, in the order in which they are connected. */
    public enum Kind {
        PARAMETER("parameter"),
        DOMAIN("clock domain"),
        CLOCK("clock"),
        RESET("reset"),
        STREAM("stream"),
        BUS("bus"),
        ATTACHMENT("attachment"),
        INTERRUPT("interrupt"),
        PART("board part");

        private final String word;

        Kind(String word) {
            this.word = word;
        }

        @Override
        public String toString() {
            return word;
        }
    }

    /** One of several equal ways. */
    public record Choice(String label, List<Edit> edits) {}
}
