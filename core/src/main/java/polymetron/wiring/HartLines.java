package polymetron.wiring;

import java.util.Comparator;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import polymetron.edit.Edit;
import polymetron.elaborate.ElaboratedBlock;

/** Gives every processor a hart number of its own (RISC-V Privileged ISA, 3.1.5). */
final class HartLines {
    private static final String HART_ID = "HART_ID";
    private final Draft draft;

    HartLines(Draft draft) {
        this.draft = draft;
    }

    void plan() {
        Set<Long> taken = new HashSet<>();
        List<ElaboratedBlock> harts =
                draft.blocksByName().stream()
                        .filter(block -> block.type().parameter(HART_ID).isPresent())
                        .sorted(
                                Comparator.comparing((ElaboratedBlock block) -> !isFixed(block))
                                        .thenComparing(
                                                // What is in use already keeps its number.
                                                block -> block.block().attachments().isEmpty())
                                        .thenComparing(ElaboratedBlock::name))
                        .toList();
        harts.forEach(block -> taken.add(block.shape().number(HART_ID)));
        Set<Long> seen = new HashSet<>();
        for (ElaboratedBlock block : harts) {
            long number = block.shape().number(HART_ID);
            if (seen.add(number) || isFixed(block)) {
                continue;
            }
            long free = 0;
            while (!taken.add(free)) {
                free++;
            }
            draft.propose(
                    "hart:" + block.name(),
                    Proposal.Kind.PARAMETER,
                    "%s is hart %s".formatted(block.name(), free),
                    "hart %s is there already, and software tells harts apart by their number"
                            .formatted(number),
                    new Edit.SetParameter(block.name(), HART_ID, Long.toString(free)));
        }
    }

    /** Whether the definition leaves no choice. */
    private static boolean isFixed(ElaboratedBlock block) {
        var form = block.type().parameter(HART_ID).orElseThrow();
        return form.maximum() != null && block.shape().number(form.maximum(), 0) == 0;
    }
}
