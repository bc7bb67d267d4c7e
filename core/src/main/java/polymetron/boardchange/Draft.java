package polymetron.boardchange;

import java.util.ArrayList;
import java.util.List;
import polymetron.edit.Edit;
import polymetron.edit.Editor;
import polymetron.edit.RejectedEdit;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.Elaborator;
import polymetron.library.Board;
import polymetron.library.Vlnv;
import polymetron.platform.Platform;

/** A change of board while it is made: the platform before, and the one on the other board so far. */
final class Draft {
    private final ElaboratedPlatform before;
    private final Editor editor;
    private final Elaborator elaborator;
    private final Board to;
    private final List<BoardChange.Line> lines = new ArrayList<>();
    private final List<Edit> edits = new ArrayList<>();
    private Platform platform;
    private ElaboratedPlatform now;

    Draft(ElaboratedPlatform before, Vlnv board) {
        this.before = before;
        this.editor = new Editor(before.library());
        this.elaborator = new Elaborator(before.library());
        this.platform = before.platform();
        apply(List.of(new Edit.ChangeBoard(board)));
        this.to = before.library().board(board).orElseThrow();
    }

    ElaboratedPlatform before() {
        return before;
    }

    /** The platform on the other board, with everything so far. */
    ElaboratedPlatform now() {
        return now;
    }

    Board to() {
        return to;
    }

    List<BoardChange.Line> lines() {
        return lines;
    }

    List<Edit> edits() {
        return edits;
    }

    void say(BoardChange.Outcome outcome, String subject, String what) {
        lines.add(new BoardChange.Line(outcome, subject, what));
    }

    void apply(List<Edit> more) {
        for (Edit edit : more) {
            platform = editor.apply(platform, edit);
            edits.add(edit);
        }
        now = elaborator.elaborate(platform);
    }

    /** The platform with a few edits more, without going on from there; null when they are refused. */
    ElaboratedPlatform tried(List<Edit> more) {
        try {
            return elaborator.elaborate(editor.apply(platform, new Edit.Several(null, more)));
        } catch (RejectedEdit impossible) {
            return null;
        }
    }
}
