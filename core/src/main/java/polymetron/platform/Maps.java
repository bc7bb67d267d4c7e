package polymetron.platform;

import java.util.Collections;
import java.util.Map;
import java.util.SortedMap;
import java.util.TreeMap;

/** Maps of a document: sorted, so that they are always written the same, and unmodifiable. */
final class Maps {
    private Maps() {}

    static <V> SortedMap<String, V> sorted(Map<String, V> map) {
        return map == null
                ? Collections.emptySortedMap()
                : Collections.unmodifiableSortedMap(new TreeMap<>(map));
    }

    /** A copy with one entry set, or taken out when the value is null. */
    static <V> SortedMap<String, V> with(Map<String, V> map, String key, V value) {
        SortedMap<String, V> copy = new TreeMap<>(map);
        if (value == null) {
            copy.remove(key);
        } else {
            copy.put(key, value);
        }
        return copy;
    }
}
