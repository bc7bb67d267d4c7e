package polymetron.wiring;

import java.util.Comparator;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import polymetron.edit.Edit;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.HartNumber;

/** Gives every processor a hart number of its own (RISC-V Privileged ISA, 3.1.5). */
final class HartLines {
    private final Draft draft;

    HartLines(Draft draft) {
        this.draft = draft;
    }

    void plan() {
        Set<Long> taken = new HashSet<>();
        List<ElaboratedBlock> harts =
                draft.blocksByName().stream()
                        .filter(HartNumber::isThere)
                        .sorted(
                                Comparator.comparing(
                                                (ElaboratedBlock block) ->
                                                        !HartNumber.isFixed(block))
                                        .thenComparing(
                                                // What is in use already keeps its number.
                                                block -> block.block().attachments().isEmpty())
                                        .thenComparing(ElaboratedBlock::name))
                        .toList();
        harts.forEach(block -> taken.add(HartNumber.of(block)));
        Set<Long> seen = new HashSet<>();
        for (ElaboratedBlock block : harts) {
            long number = HartNumber.of(block);
            if (seen.add(number) || HartNumber.isFixed(block)) {
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
                    new Edit.SetParameter(block.name(), HartNumber.PARAMETER, Long.toString(free)));
        }
    }
}
