package polymetron.ownblock;

import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.TreeMap;
import polymetron.Shipped;
import polymetron.library.Library;

/** A block of one's own for tests of what uses them. */
public final class OwnBlockExamples {
    private OwnBlockExamples() {}

    /** The library with the two block types of the harbour light. */
    public static Library harbour() {
        Library library = Shipped.LIBRARY;
        for (String name : List.of("light-sequencer", "press-counter")) {
            OwnBlock block =
                    OwnBlockDocument.read(
                            name + ".json",
                            new String(
                                    Shipped.file("demo/blocks/" + name + ".json"),
                                    StandardCharsets.UTF_8));
            library = library.with(block.type(), block.hardware(), block.drivers());
        }
        return library;
    }

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
