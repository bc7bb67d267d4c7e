package polymetron.output.handoff;

import java.util.ArrayList;
import java.util.List;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.output.HandoffFile;
import polymetron.output.hardware.Hardware;

/**
 * Everything that is made from a platform: the files for software teams and the hardware.
 *
 * @param hardware without files where something cannot be built yet
 */
public record Delivery(Handoff handoff, Hardware hardware) {
    public static Delivery of(ElaboratedPlatform platform) {
        return new Delivery(Handoff.of(platform), Hardware.of(platform));
    }

    public List<HandoffFile> files() {
        List<HandoffFile> files = new ArrayList<>(handoff.files());
        files.addAll(hardware.files());
        return List.copyOf(files);
    }

    /** All files in one ZIP archive, below a folder with the base name. */
    public byte[] zip() {
        return FilesZip.of(handoff.baseName(), files());
    }
}
