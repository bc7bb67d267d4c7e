package polymetron.output.constraints;

import polymetron.output.Exporter;
import polymetron.output.HandoffFile;
import polymetron.output.HandoffNames;
import polymetron.pin.PinCsv;
import polymetron.software.SoftwareView;

/** The pins as a table, for the build of the hardware; it can be imported again. */
final class PinTableCsv implements Exporter {
    @Override
    public HandoffFile export(SoftwareView view, HandoffNames names) {
        return new HandoffFile(
                names.of("_pins.csv"),
                "pin table",
                PinCsv.write(view.platform(), names.fingerprint()));
    }
}
