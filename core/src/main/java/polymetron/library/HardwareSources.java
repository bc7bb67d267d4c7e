package polymetron.library;

import java.util.Collections;
import java.util.Map;
import java.util.SortedMap;
import java.util.TreeMap;

/**
 * Verilog of the library.
 *
 * @param common files that any block or bus may use, by name
 * @param ofTypes files of block types, by name
 * @param ofParts the file that stands in for each kind of board part in simulation
 * @param evidence how well they are tested
 */
public record HardwareSources(
        SortedMap<String, String> common,
        Map<Vlnv, SortedMap<String, String>> ofTypes,
        SortedMap<String, String> ofParts,
        Evidence.Kept evidence) {
    public static final HardwareSources NONE =
            new HardwareSources(
                    Collections.emptySortedMap(),
                    Map.of(),
                    Collections.emptySortedMap(),
                    new Evidence.Kept(null, null));

    public HardwareSources {
        common = Collections.unmodifiableSortedMap(new TreeMap<>(common));
        ofTypes = Map.copyOf(ofTypes);
        ofParts = Collections.unmodifiableSortedMap(new TreeMap<>(ofParts));
    }

    /** These with the files of another block type. */
    HardwareSources with(Vlnv type, SortedMap<String, String> files) {
        Map<Vlnv, SortedMap<String, String>> all = new TreeMap<>(ofTypes);
        all.put(type, Collections.unmodifiableSortedMap(new TreeMap<>(files)));
        return new HardwareSources(common, all, ofParts, evidence);
    }

    /** The files of a block type. */
    public SortedMap<String, String> of(Vlnv type) {
        return ofTypes.getOrDefault(type, Collections.emptySortedMap());
    }

    /** The files of a block type with the common module that it is, where it is one. */
    public SortedMap<String, String> ofBehaviour(BlockType type) {
        SortedMap<String, String> files = new TreeMap<>(of(type.identity()));
        if (type.hardware() != null) {
            String file = type.hardware().module() + ".v";
            if (common.containsKey(file)) {
                files.put(file, common.get(file));
            }
        }
        return files;
    }
}
