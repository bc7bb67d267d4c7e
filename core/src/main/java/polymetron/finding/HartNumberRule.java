package polymetron.finding;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Consumer;
import polymetron.edit.Edit;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.HartNumber;

/** Two processors have the same hart number. */
final class HartNumberRule extends PlainRule {
    HartNumberRule() {
        super(
                "hart-number-shared",
                Grade.ERROR,
                "Two harts with one number",
                "Software tells harts apart by mhartid, which has to be different for each (RISC-V"
                        + " Privileged ISA, 3.1.5).");
    }

    @Override
    public void check(ElaboratedPlatform platform, Consumer<Finding> report) {
        Map<Long, ElaboratedBlock> first = new HashMap<>();
        long free = 0;
        List<ElaboratedBlock> processors = new ArrayList<>();
        for (ElaboratedBlock block : platform.blocks()) {
            if (HartNumber.isThere(block)) {
                processors.add(block);
                free = Math.max(free, HartNumber.of(block) + 1);
            }
        }
        for (ElaboratedBlock block : processors) {
            long number = HartNumber.of(block);
            ElaboratedBlock other = first.putIfAbsent(number, block);
            if (other != null) {
                // What is fixed by its definition keeps its number.
                ElaboratedBlock moved = HartNumber.isFixed(block) ? other : block;
                List<Fix> fixes =
                        HartNumber.isFixed(moved)
                                ? List.of()
                                : List.of(
                                        new Fix(
                                                "Make %s hart %s".formatted(moved.name(), free),
                                                new Edit.SetParameter(
                                                        moved.name(),
                                                        HartNumber.PARAMETER,
                                                        Long.toString(free))));
                report.accept(
                        finding(
                                block.name() + "." + HartNumber.PARAMETER,
                                "%s and %s are both hart %s"
                                        .formatted(other.name(), block.name(), number),
                                fixes));
                free++;
            }
        }
    }
}
