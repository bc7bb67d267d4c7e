package polymetron.handoff;

import polymetron.pin.PinCsv;

/** The pins as a table, for the build of the hardware; it can be imported again. */
final class PinTableCsv implements Exporter {
    @Override
    public HandoffFile export(SoftwareView view, String baseName, String fingerprint) {
        return new HandoffFile(
                baseName + "_pins.csv", "pin table", PinCsv.write(view.platform(), fingerprint));
    }
}
