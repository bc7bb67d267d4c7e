package polymetron.output.constraints;

import java.util.List;
import polymetron.output.Exporter;

/** The files with what the build of the hardware has to keep to: pins and timing. */
public final class ConstraintFiles {
    private ConstraintFiles() {}

    public static List<Exporter> once() {
        return List.of(new PinTableCsv(), new TimingConstraints());
    }
}
