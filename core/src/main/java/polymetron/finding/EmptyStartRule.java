package polymetron.finding;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;
import polymetron.address.Address;
import polymetron.edit.Edit;
import polymetron.elaborate.AddressSpace;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.InterfaceRef;
import polymetron.elaborate.TargetRange;
import polymetron.software.Hart;
import polymetron.software.Harts;

/** A processor starts in memory that the bitstream does not fill and that forgets. */
final class EmptyStartRule extends PlainRule {
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
        for (Hart hart : Harts.of(platform).all()) {
            ElaboratedBlock processor = hart.block();
            AddressSpace space =
                    platform.space(new InterfaceRef(processor.name(), hart.role().fetch()))
                            .orElse(null);
            // Start-up code in silicon loads the program of harts that see their own memory.
            if (hart.index() > 0 || space == null || space.initiator().seesInside()) {
                continue;
            }
            String parameter = hart.role().reset().parameter().orElse(null);
            TargetRange start = space.at(hart.resetVector()).orElse(null);
            if (start == null || !isEmpty(start)) {
                continue;
            }
            List<Fix> fixes = new ArrayList<>();
            for (TargetRange other : space.ranges()) {
                if (parameter != null && !isEmpty(other)) {
                    Address base = new Address(other.range().base());
                    fixes.add(
                            new Fix(
                                    "Start at %s, in %s".formatted(base, other.label()),
                                    new Edit.SetParameter(
                                            processor.name(), parameter, base.toString())));
                }
            }
            report.accept(
                    finding(
                            processor.name() + "." + hart.role().reset(),
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
