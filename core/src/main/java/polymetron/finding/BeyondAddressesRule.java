package polymetron.finding;

import java.util.List;
import java.util.function.Consumer;
import java.util.stream.Collectors;
import polymetron.address.AddressRange;
import polymetron.elaborate.ElaboratedBus;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.InitiatorPort;
import polymetron.elaborate.TargetRange;

/** An initiator has no address lines for a target on its bus. */
final class BeyondAddressesRule extends PlainRule {
    BeyondAddressesRule() {
        super(
                "target-beyond-addresses",
                Grade.WARNING,
                "Target beyond the addresses of an initiator",
                "The bus has more address bits than the initiator, which cannot name what lies"
                        + " above: it is in no header, no linker script and no address map of it.");
    }

    @Override
    public void check(ElaboratedPlatform platform, Consumer<Finding> report) {
        for (ElaboratedBus bus : platform.buses()) {
            if (bus.reachable().equals(bus.window())) {
                continue;
            }
            for (TargetRange target : bus.placed()) {
                List<InitiatorPort> blind =
                        bus.initiators().stream()
                                .filter(initiator -> isBlindTo(initiator, target))
                                .toList();
                if (!blind.isEmpty()) {
                    report.accept(
                            finding(
                                    target.ref(),
                                    "%s at %s lies beyond the %s address bits of %s"
                                            .formatted(
                                                    target.label(),
                                                    target.range(),
                                                    blind.getFirst().form().addressWidth(),
                                                    blind.stream()
                                                            .map(InitiatorPort::label)
                                                            .collect(Collectors.joining(", "))),
                                    PlaceFix.of(platform, bus, target).stream().toList()));
                }
            }
        }
    }

    private static boolean isBlindTo(InitiatorPort initiator, TargetRange target) {
        boolean uses =
                initiator.fetches()
                        ? target.form().type().executable()
                        : target.form().isMemory()
                                || !Boolean.TRUE.equals(initiator.form().type().memoryOnly());
        return uses
                && !AddressRange.ofWidth(initiator.form().addressWidth()).contains(target.range());
    }
}
