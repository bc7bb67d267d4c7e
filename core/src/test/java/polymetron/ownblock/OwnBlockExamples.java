package polymetron.ownblock;

import java.util.TreeMap;

/** A block of one's own for tests of what uses them. */
public final class OwnBlockExamples {
    private OwnBlockExamples() {}

    /** The document of a chime with its module and its driver. */
    public static String chime() {
        OwnBlock described = OwnBlockDocument.read("chime.json", OwnBlockTest.DOCUMENT);
        TreeMap<String, String> hardware = new TreeMap<>();
        hardware.put("bellworks_chime.v", LogicSkeleton.of(described.type()));
        TreeMap<String, String> drivers = new TreeMap<>();
        drivers.put("chime.h", DriverSkeleton.of(described.type()));
        return OwnBlockDocument.write(
                new OwnBlock(described.type(), described.definition(), hardware, drivers));
    }
}
