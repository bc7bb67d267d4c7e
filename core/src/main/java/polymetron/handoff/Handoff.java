package polymetron.handoff;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.time.LocalDateTime;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.TreeMap;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.library.Vlnv;
import polymetron.platform.Names;

/**
 * All files for software teams, made from one platform.
 *
 * @param baseName the name that the files share, made from the platform's title
 * @param fingerprint see {@link Fingerprint}
 */
public record Handoff(String baseName, String fingerprint, List<HandoffFile> files) {
    private static final List<Exporter> EXPORTERS =
            List.of(
                    new CHeader(),
                    new LinkerScript(),
                    new StartupCode(),
                    new DeviceTree(),
                    new AddressMapCsv(),
                    new AddressMapJson(),
                    new RegisterReference(),
                    new PinTableCsv(),
                    new TimingConstraints());
    // ZIP has no time zones and begins in 1980; a fixed time keeps the bytes the same.
    private static final LocalDateTime TIME = LocalDateTime.of(2026, 1, 1, 0, 0);

    public static Handoff of(ElaboratedPlatform platform) {
        String baseName = Names.fromTitle(platform.platform().name());
        String fingerprint = Fingerprint.of(platform);
        SoftwareView view = SoftwareView.of(platform);
        List<HandoffFile> files = new ArrayList<>();
        for (Exporter exporter : EXPORTERS) {
            files.add(exporter.export(view, baseName, fingerprint));
        }
        TreeMap<String, HandoffFile> drivers = new TreeMap<>();
        // Two versions of a block share a driver: that of the newer one, which knows the older one
        // too.
        List<ElaboratedBlock> byVersion = new ArrayList<>(platform.blocks());
        byVersion.sort(Comparator.comparing(block -> block.type().identity(), Vlnv.BY_VERSION));
        for (ElaboratedBlock block : byVersion) {
            platform.library()
                    .driverFiles(block.type().identity())
                    .forEach(
                            (name, text) ->
                                    drivers.put(
                                            name,
                                            new HandoffFile(
                                                    "drivers/" + name,
                                                    "driver for " + block.type().title(),
                                                    stamped(text, fingerprint))));
        }
        files.addAll(drivers.values());
        return new Handoff(baseName, fingerprint, List.copyOf(files));
    }

    private static String stamped(String text, String fingerprint) {
        return "/* Platform fingerprint " + fingerprint + ". */\n" + text;
    }

    /** All files in one ZIP archive, below a folder with the base name. */
    public byte[] zip() {
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        try (ZipOutputStream zip = new ZipOutputStream(bytes)) {
            for (HandoffFile file : files) {
                ZipEntry entry = new ZipEntry(baseName + "/" + file.path());
                entry.setTimeLocal(TIME);
                zip.putNextEntry(entry);
                zip.write(file.bytes());
                zip.closeEntry();
            }
        } catch (IOException impossible) {
            throw new UncheckedIOException(impossible);
        }
        return bytes.toByteArray();
    }
}
