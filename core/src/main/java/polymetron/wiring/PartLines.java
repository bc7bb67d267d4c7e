package polymetron.wiring;

import java.util.Comparator;
import java.util.List;
import polymetron.board.Parts;
import polymetron.edit.Edit;
import polymetron.elaborate.OutwardLink;
import polymetron.library.Board;

/** Outward ports to free parts of the board, those of the same name first. */
final class PartLines {
    private final Draft draft;

    PartLines(Draft draft) {
        this.draft = draft;
    }

    void plan() {
        List<OutwardLink> unconnected =
                draft.now().outward().stream()
                        .filter(link -> link.binding() == null)
                        .sorted(Comparator.comparing(OutwardLink::ref))
                        .toList();
        // Ports with a part of their own name first, so that no other port takes it.
        for (boolean sameName : new boolean[] {true, false}) {
            for (OutwardLink link : unconnected) {
                List<Board.Part> fitting = new Parts(draft.now()).fitting(link);
                boolean named =
                        fitting.stream().anyMatch(part -> part.name().equals(link.block().name()));
                if (named == sameName && !fitting.isEmpty()) {
                    one(link, fitting);
                }
            }
        }
    }

    private void one(OutwardLink link, List<Board.Part> fitting) {
        String key = "part:" + link.ref();
        if (draft.isSaid(key)) {
            return;
        }
        List<Board.Part> named =
                fitting.stream().filter(part -> part.name().equals(link.block().name())).toList();
        List<Board.Part> best = named.isEmpty() ? fitting : named;
        if (best.size() == 1) {
            draft.propose(
                    key,
                    Proposal.Kind.PART,
                    "%s → board part %s".formatted(link.ref(), best.getFirst().name()),
                    named.isEmpty()
                            ? "the only free part that matches in kind, direction and width"
                            : "same name as the board part",
                    bind(link, best.getFirst()));
            return;
        }
        draft.offer(
                key,
                Proposal.Kind.PART,
                "%s to one of %s board parts".formatted(link.ref(), best.size()),
                "several free parts match; choose one",
                best.stream()
                        .map(part -> new Proposal.Choice(part.name(), List.of(bind(link, part))))
                        .toList());
    }

    private static Edit bind(OutwardLink link, Board.Part part) {
        return new Edit.BindPart(link.block().name(), link.form().name(), part.name());
    }
}
