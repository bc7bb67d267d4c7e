package polymetron.finding;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Consumer;
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
                "Who goes first is then up to the order of the document, and one of them may wait"
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
                                    List.of()));
                }
            }
        }
    }
}
