package polymetron.finding;

import java.util.List;
import java.util.function.Consumer;
import polymetron.elaborate.ElaboratedBus;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.InitiatorPort;

/** Bursts on a bus without them. */
final class LostBurstRule extends PlainRule {
    LostBurstRule() {
        super(
                "burst-lost",
                Grade.NOTE,
                "Bursts on a bus without them",
                "Each transfer of a burst becomes an access of its own. It works, at a fraction of"
                        + " the speed.");
    }

    @Override
    public void check(ElaboratedPlatform platform, Consumer<Finding> report) {
        for (ElaboratedBus bus : platform.buses()) {
            for (InitiatorPort initiator : bus.initiators()) {
                if (initiator.form().burst() > 1 && !bus.bus().protocol().carriesBursts()) {
                    report.accept(
                            finding(
                                    initiator.ref(),
                                    "%s sends bursts of %s, and %s has none"
                                            .formatted(
                                                    initiator.label(),
                                                    initiator.form().burst(),
                                                    bus.name()),
                                    List.of()));
                }
            }
        }
    }
}
