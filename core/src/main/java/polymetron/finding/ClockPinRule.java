package polymetron.finding;

import java.util.List;
import java.util.function.Consumer;
import polymetron.elaborate.Domain;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.library.Device;

/** A clock of the board uses a pin that has no way to the clock networks. */
final class ClockPinRule extends PlainRule {
    ClockPinRule() {
        super(
                "clock-pin",
                Grade.WARNING,
                "Clock at a pin that is not made for it",
                "From other pins a clock reaches the clock networks through plain wires: later, and"
                        + " with more jitter.");
    }

    @Override
    public void check(ElaboratedPlatform platform, Consumer<Finding> report) {
        if (platform.device() == null) {
            return;
        }
        for (Domain domain : platform.domains()) {
            if (domain.clock() == null) {
                continue;
            }
            String pin = domain.clock().pin();
            Device.Bank bank = platform.device().bankOf(pin).orElse(null);
            boolean known =
                    platform.device().banks().stream()
                            .anyMatch(each -> !each.clockPins().isEmpty());
            if (bank != null && known && !bank.clockPins().contains(pin)) {
                report.accept(
                        finding(
                                domain.name(),
                                "%s uses pin %s, which is not clock-capable in bank %s"
                                        .formatted(domain.clock().name(), pin, bank.name()),
                                List.of()));
            }
        }
    }
}
