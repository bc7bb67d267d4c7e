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
 */
public record HardwareSources(
        SortedMap<String, String> common,
        Map<Vlnv, SortedMap<String, String>> ofTypes,
        SortedMap<String, String> ofParts) {
    public static final HardwareSources NONE =
            new HardwareSources(
                    Collections.emptySortedMap(), Map.of(), Collections.emptySortedMap());

    public HardwareSources {
        common = Collections.unmodifiableSortedMap(new TreeMap<>(common));
        ofTypes = Map.copyOf(ofTypes);
        ofParts = Collections.unmodifiableSortedMap(new TreeMap<>(ofParts));
    }

    /** The files of a block type. */
    public SortedMap<String, String> of(Vlnv type) {
        return ofTypes.getOrDefault(type, Collections.emptySortedMap());
    }
}
