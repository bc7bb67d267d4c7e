package polymetron.finding;

import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Consumer;
import polymetron.edit.Edit;
import polymetron.elaborate.ElaboratedBus;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.InitiatorPort;
import polymetron.platform.Attachment;

/** Priorities decide on a bus, and two initiators have the same. */
final class SharedPriorityRule extends PlainRule {
    SharedPriorityRule() {
        super(
                "priority-shared",
                Grade.WARNING,
                "Two initiators of one priority",
                "Arbitration then follows the order of the document, and one of them may wait"
                        + " longer than anybody planned.");
    }

    @Override
    public void check(ElaboratedPlatform platform, Consumer<Finding> report) {
        for (ElaboratedBus bus : platform.buses()) {
            if (!bus.bus().goesByPriority()) {
                continue;
            }
            Map<Integer, InitiatorPort> first = new HashMap<>();
            for (InitiatorPort initiator : bus.initiators()) {
                Attachment at = initiator.attachment();
                int priority = at.priority() == null ? Attachment.LAST_PRIORITY : at.priority();
                InitiatorPort other = first.putIfAbsent(priority, initiator);
                if (other != null) {
                    report.accept(
                            finding(
                                    initiator.ref(),
                                    "%s and %s both have priority %s on %s"
                                            .formatted(
                                                    other.label(),
                                                    initiator.label(),
                                                    priority,
                                                    bus.name()),
                                    fixes(bus, initiator)));
                }
            }
        }
    }

    /** The next priority that no initiator of the bus has. */
    private static List<Fix> fixes(ElaboratedBus bus, InitiatorPort initiator) {
        Set<Integer> taken = new HashSet<>();
        for (InitiatorPort each : bus.initiators()) {
            Integer own = each.attachment().priority();
            taken.add(own == null ? Attachment.LAST_PRIORITY : own);
        }
        for (int free = 0; free <= Attachment.LAST_PRIORITY; free++) {
            if (!taken.contains(free)) {
                return List.of(
                        new Fix(
                                "Give %s priority %s".formatted(initiator.label(), free),
                                new Edit.SetPriority(
                                        initiator.ref().block(), initiator.ref().name(), free)));
            }
        }
        return List.of();
    }
}
