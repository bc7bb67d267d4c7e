package polymetron.finding;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;
import polymetron.address.Address;
import polymetron.edit.Edit;
import polymetron.elaborate.AddressSpace;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.TargetRange;

/** A processor starts in memory that the bitstream does not fill and that forgets. */
final class EmptyStartRule extends PlainRule {
    private static final String VECTOR = "RESET_VECTOR";

    EmptyStartRule() {
        super(
                "start-in-empty-memory",
                Grade.WARNING,
                "Start in memory that is empty",
                "The memory holds nothing when the device has been configured. Unless something"
                        + " loads a program first, the processor executes whatever is there.");
    }

    @Override
    public void check(ElaboratedPlatform platform, Consumer<Finding> report) {
        for (AddressSpace space : platform.spaces()) {
            var processor = space.initiator().block();
            if (!space.initiator().fetches() || processor.type().parameter(VECTOR).isEmpty()) {
                continue;
            }
            TargetRange start = space.at(processor.shape().number(VECTOR)).orElse(null);
            if (start == null || !isEmpty(start)) {
                continue;
            }
            List<Fix> fixes = new ArrayList<>();
            for (TargetRange other : space.ranges()) {
                if (!isEmpty(other)) {
                    Address base = new Address(other.range().base());
                    fixes.add(
                            new Fix(
                                    "Start at %s, in %s".formatted(base, other.label()),
                                    new Edit.SetParameter(
                                            processor.name(), VECTOR, base.toString())));
                }
            }
            report.accept(
                    finding(
                            processor.name() + "." + VECTOR,
                            "%s starts in %s, which is empty after configuration"
                                    .formatted(processor.name(), start.label()),
                            fixes));
        }
    }

    /** Memory that is written by stores and has no contents from the bitstream. */
    private static boolean isEmpty(TargetRange memory) {
        return memory.form().isMemory()
                && memory.form().isWritable()
                && !memory.isFilledByBitstream();
    }
}
