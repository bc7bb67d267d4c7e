package polymetron.elaborate;

import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.Map;

/** Maps that keep the order of the document and that cannot be changed. */
final class Ordered {
    private Ordered() {}

    static <K, V> Map<K, V> copyOf(Map<K, V> map) {
        return Collections.unmodifiableMap(new LinkedHashMap<>(map));
    }
}
