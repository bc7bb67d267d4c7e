package polymetron.finding;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Consumer;
import polymetron.edit.Edit;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.software.Hart;
import polymetron.software.Harts;

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
        Map<Long, Hart> first = new HashMap<>();
        List<Hart> harts = Harts.of(platform).all();
        long free = harts.stream().mapToLong(Hart::id).max().orElse(0) + 1;
        for (Hart hart : harts) {
            Hart other = first.putIfAbsent(hart.id(), hart);
            if (other == null) {
                continue;
            }
            // What is fixed by its definition keeps its number.
            Hart moved = hart.numberParameter().isPresent() ? hart : other;
            String name = moved.block().name();
            long number = free - moved.index();
            List<Fix> fixes =
                    moved.numberParameter()
                            .map(
                                    parameter ->
                                            List.of(
                                                    new Fix(
                                                            "Make %s hart %s"
                                                                    .formatted(name, number),
                                                            new Edit.SetParameter(
                                                                    name,
                                                                    parameter,
                                                                    Long.toString(number)))))
                            .orElse(List.of());
            report.accept(
                    finding(
                            hart.block().name() + "." + hart.role().id(),
                            "%s and %s are both hart %s"
                                    .formatted(
                                            other.block().name(), hart.block().name(), hart.id()),
                            fixes));
            free++;
        }
    }
}
