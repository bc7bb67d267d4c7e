package polymetron.finding;

import java.util.List;
import java.util.function.Consumer;
import polymetron.elaborate.ElaboratedBus;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.InitiatorPort;

/** Initiator wider than its bus. */
final class LostWidthRule extends PlainRule {
    LostWidthRule() {
        super(
                "width-lost",
                Grade.NOTE,
                "Initiator wider than its bus",
                "Each access becomes several, through a width adapter.");
    }

    @Override
    public void check(ElaboratedPlatform platform, Consumer<Finding> report) {
        for (ElaboratedBus bus : platform.buses()) {
            for (InitiatorPort initiator : bus.initiators()) {
                if (initiator.form().dataWidth() > bus.bus().dataWidth()) {
                    report.accept(
                            finding(
                                    initiator.ref(),
                                    "%s has %s bits, and %s has %s"
                                            .formatted(
                                                    initiator.label(),
                                                    initiator.form().dataWidth(),
                                                    bus.name(),
                                                    bus.bus().dataWidth()),
                                    List.of()));
                }
            }
        }
    }
}
