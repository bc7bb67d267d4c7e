package polymetron.finding;

import java.util.function.Consumer;
import polymetron.board.PinUse;
import polymetron.elaborate.ElaboratedPlatform;

/** A line is on a pin that the device needs while it is configured. */
final class ReservedPinRule extends PlainRule {
    ReservedPinRule() {
        super(
                "pin-configuration",
                Grade.ERROR,
                "Pin that configures the device",
                "While the device is configured it drives or reads this pin itself, against"
                        + " whatever is connected there.");
    }

    @Override
    public void check(ElaboratedPlatform platform, Consumer<Finding> report) {
        if (platform.device() == null) {
            return;
        }
        FreePins pins = new FreePins(platform);
        for (PinUse use : PinUse.of(platform)) {
            platform.device()
                    .bankOf(use.pin())
                    .filter(bank -> bank.configurationPins().contains(use.pin()))
                    .ifPresent(
                            bank ->
                                    report.accept(
                                            finding(
                                                    use.subject(),
                                                    "%s is on pin %s, which %s needs while it is configured"
                                                            .formatted(
                                                                    use.port(),
                                                                    use.pin(),
                                                                    platform.device().name()),
                                                    pins.of(use.subject()))));
        }
    }
}
