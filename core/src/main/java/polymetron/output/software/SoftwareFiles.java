package polymetron.output.software;

import java.util.List;
import polymetron.output.Exporter;

/** The files that are made for software teams. */
public final class SoftwareFiles {
    private SoftwareFiles() {}

    /** Those of each program. */
    public static List<Exporter> forEachProgram() {
        return List.of(new CHeader(), new LinkerScript(), new StartupCode());
    }

    /** Those of each address map that programs see. */
    public static List<Exporter> forEachMap() {
        return List.of(new DeviceTree(), new RegisterReference());
    }

    /** Those of the whole platform. */
    public static List<Exporter> once() {
        return List.of(new AddressMapCsv(), new AddressMapJson());
    }
}
