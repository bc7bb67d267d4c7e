package polymetron.finding;

import java.util.List;
import java.util.function.Consumer;
import polymetron.edit.Edit;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.InterruptLink;

/** A source is to have a priority that its controller does not have, or one that never interrupts. */
final class InterruptPriorityRule extends PlainRule {
    private static final String BITS = "PRIORITY_BITS";

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
            boolean settable = link.sinkBlock().type().parameter(BITS).isPresent();
            long highest = settable ? (1L << link.sinkBlock().shape().number(BITS)) - 1 : 0;
            if (!settable || priority == 0 || priority > highest) {
                report.accept(
                        finding(
                                link.ref(),
                                "%s is to have priority %s; %s"
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
