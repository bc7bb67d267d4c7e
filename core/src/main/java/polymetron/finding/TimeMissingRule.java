package polymetron.finding;

import java.util.List;
import java.util.function.Consumer;
import polymetron.edit.Edit;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.expression.Expression;
import polymetron.library.Capability;
import polymetron.software.Hart;
import polymetron.software.Harts;
import polymetron.software.MachineTimer;

/** A hart has the counters of Zicntr, but no time to read. */
final class TimeMissingRule extends PlainRule {
    TimeMissingRule() {
        super(
                "time-missing",
                Grade.NOTE,
                "Time counter without a machine timer",
                "The counter time is the MTIME of the machine timer that interrupts the hart"
                        + " (RISC-V Privileged ISA, 3.2.1). Without one reading it is an illegal"
                        + " instruction, and the hand-off leaves Zicntr out.");
    }

    private static final String COUNTERS = "zicntr";

    @Override
    public void check(ElaboratedPlatform platform, Consumer<Finding> report) {
        for (Hart hart : Harts.of(platform).all()) {
            Expression when =
                    hart.role().extensions().stream()
                            .filter(extension -> extension.name().equals(COUNTERS))
                            .findFirst()
                            .map(Capability.Extension::when)
                            .orElse(null);
            if (when == null
                    || !hart.block().shape().isPresent(when)
                    || MachineTimer.serving(platform, hart).isPresent()) {
                continue;
            }
            report.accept(
                    finding(
                            hart.block().name(),
                            "%s has counters, and no machine timer that interrupts it"
                                    .formatted(hart.label()),
                            when.parameter()
                                    .map(
                                            parameter ->
                                                    List.of(
                                                            new Fix(
                                                                    "Leave the counters out",
                                                                    new Edit.SetParameter(
                                                                            hart.block().name(),
                                                                            parameter,
                                                                            "0"))))
                                    .orElse(List.of())));
        }
    }
}
