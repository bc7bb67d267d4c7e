package polymetron.wiring;

import polymetron.address.Address;
import polymetron.edit.Edit;
import polymetron.placement.StartVectors;

/** Where processors start, when what they would fetch there is no memory or an empty one. */
final class StartLines {
    private final Draft draft;

    StartLines(Draft draft) {
        this.draft = draft;
    }

    void plan() {
        for (StartVectors start : StartVectors.of(draft.now())) {
            if (!start.edits().isEmpty()) {
                draft.propose(
                        "start:" + start.processor().name(),
                        Proposal.Kind.PARAMETER,
                        "%s starts at %s, in %s"
                                .formatted(
                                        start.processor().name(),
                                        Address.format(start.memory().range().base()),
                                        start.memory().label()),
                        start.memory().isFilledByBitstream()
                                ? "the memory that the bitstream fills"
                                : "the lowest memory that it can fetch from",
                        new Edit.Several(null, start.edits()));
            }
        }
    }
}
