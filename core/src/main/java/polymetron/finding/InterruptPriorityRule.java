package polymetron.finding;

import java.util.List;
import java.util.function.Consumer;
import polymetron.edit.Edit;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.InterruptLink;
import polymetron.software.InterruptController;

/** A source is assigned a priority that its controller does not have, or one that never interrupts. */
final class InterruptPriorityRule extends PlainRule {
    InterruptPriorityRule() {
        super(
                "interrupt-priority",
                Grade.WARNING,
                "Interrupt priority without effect",
                "A controller keeps only as many bits as it has, and priority 0 never interrupts"
                        + " (RISC-V PLIC 1.0.0, interrupt priorities). Other controllers have none"
                        + " to set.");
    }

    @Override
    public void check(ElaboratedPlatform platform, Consumer<Finding> report) {
        for (InterruptLink link : platform.interrupts()) {
            if (!link.isConnected() || link.wire().priority() == null) {
                continue;
            }
            int priority = link.wire().priority();
            InterruptController controller =
                    InterruptController.withInputs(platform, link.sinkBlock(), link.sink().name())
                            .orElse(null);
            boolean settable = controller != null;
            long highest = settable ? (1L << controller.priorityBits()) - 1 : 0;
            if (!settable || priority == 0 || priority > highest) {
                report.accept(
                        finding(
                                link.ref(),
                                "%s is assigned priority %s; %s"
                                        .formatted(
                                                link.ref(),
                                                priority,
                                                settable
                                                        ? "%s has 1 to %s"
                                                                .formatted(
                                                                        link.wire().block(),
                                                                        highest)
                                                        : link.wire().block() + " has none"),
                                List.of(
                                        new Fix(
                                                "Leave it to software",
                                                new Edit.SetInterruptPriority(
                                                        link.block().name(),
                                                        link.source().name(),
                                                        null)))));
            }
        }
    }
}
