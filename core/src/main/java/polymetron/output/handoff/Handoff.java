package polymetron.output.handoff;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.library.Vlnv;
import polymetron.output.HandoffFile;
import polymetron.output.HandoffNames;
import polymetron.output.constraints.ConstraintFiles;
import polymetron.output.software.SoftwareFiles;
import polymetron.software.Hart;
import polymetron.software.SoftwareView;

/**
 * All files for software teams, made from one platform: header, linker script and start-up code for each program, device
 * tree and register reference for each address map that programs see, and the rest once.
 *
 * @param baseName the name that the files share, made from the platform's title
 * @param fingerprint see {@link Fingerprint}
 */
public record Handoff(String baseName, String fingerprint, List<HandoffFile> files) {

    public static Handoff of(ElaboratedPlatform platform) {
        HandoffNames names = HandoffNames.of(platform);
        List<HandoffFile> files = new ArrayList<>();
        List<SoftwareView> programs = SoftwareView.all(platform);
        for (SoftwareView program : programs) {
            SoftwareFiles.forEachProgram()
                    .forEach(exporter -> files.add(exporter.export(program, names)));
        }
        List<SoftwareView> maps = maps(programs);
        HandoffNames mapNames =
                new HandoffNames(names.base(), names.fingerprint(), maps.size() > 1);
        for (SoftwareView map : maps) {
            SoftwareFiles.forEachMap()
                    .forEach(exporter -> files.add(exporter.export(map, mapNames)));
        }
        SoftwareView first = programs.getFirst();
        SoftwareFiles.once().forEach(exporter -> files.add(exporter.export(first, names)));
        ConstraintFiles.once().forEach(exporter -> files.add(exporter.export(first, names)));
        files.addAll(drivers(platform, names.fingerprint()));
        return new Handoff(names.base(), names.fingerprint(), List.copyOf(files));
    }

    /** Programs that see the same targets at the same addresses, taken together. */
    private static List<SoftwareView> maps(List<SoftwareView> programs) {
        Map<Object, SoftwareView> maps = new LinkedHashMap<>();
        for (SoftwareView program : programs) {
            List<Object> seen = new ArrayList<>();
            program.targets().forEach(target -> seen.add(List.of(target.ref(), target.range())));
            maps.merge(seen, program, Handoff::together);
        }
        return List.copyOf(maps.values());
    }

    private static SoftwareView together(SoftwareView one, SoftwareView other) {
        List<Hart> harts = new ArrayList<>(one.harts());
        harts.addAll(other.harts());
        return new SoftwareView(
                one.platform(), List.copyOf(harts), one.targets(), one.place(), one.parts());
    }

    private static List<HandoffFile> drivers(ElaboratedPlatform platform, String fingerprint) {
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
        return List.copyOf(drivers.values());
    }

    private static String stamped(String text, String fingerprint) {
        return "/* Platform fingerprint " + fingerprint + ". */\n" + text;
    }

    /** All files in one ZIP archive, below a folder with the base name. */
    public byte[] zip() {
        return FilesZip.of(baseName, files);
    }
}
