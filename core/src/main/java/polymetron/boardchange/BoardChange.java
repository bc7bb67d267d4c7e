package polymetron.boardchange;

import java.util.ArrayList;
import java.util.List;
import polymetron.edit.Edit;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.library.Board;
import polymetron.library.Vlnv;

/**
 * What becomes of a platform on another board: what stays, what changes, and what is lost because the other board has
 * nothing for it. Parts are found again by name, then by kind; pins chosen by hand stay where the device has them free;
 * PLLs are set again for the frequencies that were there.
 *
 * @param lines what happens to what, in the order of the steps
 */
public record BoardChange(Board to, List<Line> lines, List<Edit> edits) {
    /** What happens to something. */
    public enum Outcome {
        STAYS("stays"),
        CHANGES("changes"),
        LOST("lost");

        private final String word;

        Outcome(String word) {
            this.word = word;
        }

        @Override
        public String toString() {
            return word;
        }
    }

    /**
     * One thing and what happens to it.
     *
     * @param subject domain, PLL or outward interface
     * @param what what it is on the other board, or why it is nothing there
     */
    public record Line(Outcome outcome, String subject, String what) {}

    /**
     * @throws polymetron.edit.RejectedEdit when the library has no such board
     */
    public static BoardChange of(ElaboratedPlatform platform, Vlnv board) {
        Draft draft = new Draft(platform, board);
        new ClockSources(draft).plan();
        new PllSettings(draft).plan();
        new HardBlocks(draft).plan();
        new OutwardPlaces(draft).plan();
        return new BoardChange(draft.to(), List.copyOf(draft.lines()), List.copyOf(draft.edits()));
    }

    /** All of it as one edit. */
    public Edit asEdit() {
        List<Edit> all = new ArrayList<>(edits);
        return new Edit.Several("change the board to " + to.title(), all);
    }
}
