package polymetron.wiring;

import java.util.Comparator;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import polymetron.edit.Edit;
import polymetron.software.Hart;
import polymetron.software.Harts;

/** Gives every processor a hart number of its own (RISC-V Privileged ISA, 3.1.5). */
final class HartLines {
    private final Draft draft;

    HartLines(Draft draft) {
        this.draft = draft;
    }

    void plan() {
        // As they are before the first proposal.
        Harts harts = Harts.of(draft.now());
        Set<Long> taken = new HashSet<>();
        harts.all().forEach(hart -> taken.add(hart.id()));
        List<Hart> firsts =
                harts.all().stream()
                        .filter(hart -> hart.index() == 0)
                        .sorted(
                                Comparator.comparing(
                                                (Hart hart) -> hart.numberParameter().isPresent())
                                        .thenComparing(
                                                // What is in use already keeps its number.
                                                hart ->
                                                        hart.block()
                                                                .block()
                                                                .attachments()
                                                                .isEmpty())
                                        .thenComparing(hart -> hart.block().name()))
                        .toList();
        Set<Long> seen = new HashSet<>();
        for (Hart first : firsts) {
            List<Hart> block = harts.of(first.block());
            boolean clashes = false;
            for (Hart hart : block) {
                clashes |= !seen.add(hart.id());
            }
            if (!clashes || first.numberParameter().isEmpty()) {
                continue;
            }
            long free = 0;
            while (!taken.add(free)) {
                free++;
            }
            draft.propose(
                    "hart:" + first.block().name(),
                    Proposal.Kind.PARAMETER,
                    "%s is hart %s".formatted(first.block().name(), free),
                    "hart %s is there already, and software tells harts apart by their number"
                            .formatted(first.id()),
                    new Edit.SetParameter(
                            first.block().name(),
                            first.numberParameter().get(),
                            Long.toString(free)));
        }
    }
}
