package polymetron.finding;

import java.util.HashSet;
import java.util.Set;
import java.util.function.Consumer;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.library.Device;
import polymetron.pin.PinLine;
import polymetron.pin.PinTable;

/** A pin has a standard that the device does not have, or that needs another voltage than its bank has. */
final class PinStandardRule extends PlainRule {
    PinStandardRule() {
        super(
                "pin-standard",
                Grade.ERROR,
                "I/O standard that does not go there",
                "A bank has one supply voltage. At another one the levels are wrong, and inputs or"
                        + " outputs may be damaged.");
    }

    @Override
    public void check(ElaboratedPlatform platform, Consumer<Finding> report) {
        if (platform.device() == null) {
            return;
        }
        Set<String> told = new HashSet<>();
        for (PinLine line : PinTable.of(platform).lines()) {
            if (line.standard() == null || line.bank() == null) {
                continue;
            }
            Object subject = line.ref() == null ? line.port() : line.ref();
            Device.Standard standard = platform.device().standard(line.standard()).orElse(null);
            String what = null;
            if (standard == null) {
                what =
                        "%s has no I/O standard %s"
                                .formatted(platform.device().name(), line.standard());
            } else if (!standard.voltage().equals(line.bank().voltage())) {
                what =
                        "%s at %s is %s, which needs %s; bank %s has %s"
                                .formatted(
                                        line.port(),
                                        line.pin(),
                                        standard.name(),
                                        standard.voltage(),
                                        line.bank().name(),
                                        line.bank().voltage());
            }
            if (what != null && told.add(subject + " " + line.signal())) {
                report.accept(finding(subject, what, PinFixes.asUsual(line)));
            }
        }
    }
}
