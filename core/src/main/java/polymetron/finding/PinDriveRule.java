package polymetron.finding;

import java.util.HashSet;
import java.util.Set;
import java.util.function.Consumer;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.library.Device;
import polymetron.pin.PinLine;
import polymetron.pin.PinTable;

/** An output is to drive a current that its standard does not offer. */
final class PinDriveRule extends PlainRule {
    PinDriveRule() {
        super(
                "pin-drive",
                Grade.ERROR,
                "Current that the standard does not have",
                "The device can drive only certain currents with each standard.");
    }

    @Override
    public void check(ElaboratedPlatform platform, Consumer<Finding> report) {
        Set<String> told = new HashSet<>();
        for (PinLine line : PinTable.of(platform).lines()) {
            Integer drive = line.setting().drive();
            Device.Standard standard =
                    platform.device() == null || line.standard() == null
                            ? null
                            : platform.device().standard(line.standard()).orElse(null);
            if (drive != null
                    && standard != null
                    && !standard.drives().contains(drive)
                    && told.add(line.ref() + " " + line.signal())) {
                report.accept(
                        finding(
                                line.ref(),
                                "%s is set to %s mA; %s has %s"
                                        .formatted(
                                                line.signal(),
                                                drive,
                                                standard.name(),
                                                standard.drives().isEmpty()
                                                        ? "one current only"
                                                        : standard.drives() + " mA"),
                                PinFixes.asUsual(line)));
            }
        }
    }
}
