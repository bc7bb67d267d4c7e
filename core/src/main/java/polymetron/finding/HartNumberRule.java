package polymetron.finding;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Consumer;
import polymetron.edit.Edit;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.ElaboratedPlatform;

/** Two processors have the same hart number. */
final class HartNumberRule extends PlainRule {
    private static final String HART_ID = "HART_ID";

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
            if (block.type().parameter(HART_ID).isPresent()) {
                processors.add(block);
                free = Math.max(free, block.shape().number(HART_ID) + 1);
            }
        }
        for (ElaboratedBlock block : processors) {
            long number = block.shape().number(HART_ID);
            ElaboratedBlock other = first.putIfAbsent(number, block);
            if (other != null) {
                report.accept(
                        finding(
                                block.name() + "." + HART_ID,
                                "%s and %s are both hart %s"
                                        .formatted(other.name(), block.name(), number),
                                List.of(
                                        new Fix(
                                                "Make %s hart %s".formatted(block.name(), free),
                                                new Edit.SetParameter(
                                                        block.name(),
                                                        HART_ID,
                                                        Long.toString(free))))));
                free++;
            }
        }
    }
}
