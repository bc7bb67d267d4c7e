package polymetron.wiring;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import polymetron.edit.Edit;
import polymetron.edit.Editor;
import polymetron.edit.RejectedEdit;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.Elaborator;
import polymetron.library.Library;
import polymetron.platform.Platform;

/** A plan while it is made: the lines so far, and the platform that they lead to. */
final class Draft {
    private final Editor editor;
    private final Elaborator elaborator;
    private final WiringPlan.Decisions decisions;
    private final List<Proposal> lines = new ArrayList<>();
    private final Set<String> said = new HashSet<>();
    private Platform platform;
    private ElaboratedPlatform now;
    private List<ElaboratedBlock> byName;

    Draft(Platform platform, Library library, WiringPlan.Decisions decisions) {
        this.editor = new Editor(library);
        this.elaborator = new Elaborator(library);
        this.decisions = decisions;
        this.platform = platform;
        work();
    }

    private void work() {
        now = elaborator.elaborate(platform);
        byName = now.blocks().stream().sorted(Comparator.comparing(ElaboratedBlock::name)).toList();
    }

    /** The platform with every line so far applied that is not switched off. */
    ElaboratedPlatform now() {
        return now;
    }

    WiringPlan.Decisions decisions() {
        return decisions;
    }

    List<Proposal> lines() {
        return lines;
    }

    /**
     * Notes a line and, unless it is switched off, goes on from the platform that it makes. What the platform refuses
     * (a document can name a domain that is not there) is no proposal.
     */
    void propose(String key, Proposal.Kind kind, String what, String why, Edit edit) {
        said.add(key);
        if (decisions.off().contains(key) || goOn(List.of(edit))) {
            lines.add(new Proposal(key, kind, what, why, List.of(edit), List.of()));
        }
    }

    void offer(
            String key,
            Proposal.Kind kind,
            String what,
            String why,
            List<Proposal.Choice> choices) {
        Integer chosen = decisions.chosen().get(key);
        boolean made = chosen != null && chosen >= 0 && chosen < choices.size();
        List<Edit> edits = made ? choices.get(chosen).edits() : List.of();
        said.add(key);
        boolean possible = !made || decisions.off().contains(key) || goOn(edits);
        lines.add(new Proposal(key, kind, what, why, possible ? edits : List.of(), choices));
    }

    private boolean goOn(List<Edit> edits) {
        try {
            Platform next = platform;
            for (Edit edit : edits) {
                next = editor.apply(next, edit);
            }
            platform = next;
            work();
            return true;
        } catch (RejectedEdit impossible) {
            return false;
        }
    }

    List<ElaboratedBlock> blocksByName() {
        return byName;
    }

    /** Whether there is a line with this key already, even one that is switched off. */
    boolean isSaid(String key) {
        return said.contains(key);
    }
}
