package polymetron.finding;

import java.util.List;
import java.util.function.Consumer;
import polymetron.edit.Edit;
import polymetron.elaborate.ElaboratedBus;
import polymetron.elaborate.ElaboratedPlatform;

/** A bus that nothing is attached to. */
final class EmptyBusRule extends PlainRule {
    EmptyBusRule() {
        super(
                "bus-empty",
                Grade.NOTE,
                "Bus with nothing on it",
                "It takes logic and a place in every list for nothing.");
    }

    @Override
    public void check(ElaboratedPlatform platform, Consumer<Finding> report) {
        for (ElaboratedBus bus : platform.buses()) {
            boolean empty =
                    bus.initiators().isEmpty()
                            && bus.placed().isEmpty()
                            && bus.unplaced().isEmpty();
            if (empty && !platform.blocks().isEmpty()) {
                report.accept(
                        finding(
                                bus.name(),
                                "nothing is on bus %s".formatted(bus.name()),
                                List.of(
                                        new Fix(
                                                "Remove bus %s".formatted(bus.name()),
                                                new Edit.RemoveBus(bus.name())))));
            }
        }
    }
}
