package polymetron.library;

import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.SortedMap;
import java.util.TreeMap;

/**
 * Something around a board that joins parts of it, such as water between gates: what one part does, another measures.
 *
 * @param kind which of {@link #ROLES}
 * @param parts names of the board's parts by the role that each has
 */
public record Surrounding(
        String kind, String title, String summary, SortedMap<String, String> parts) {
    /** Gates that are moved by pulse widths, their end switches and encoder, and the water that they let through. */
    public static final String LOCK_CHAMBER = "lock-chamber";

    /** A battery that nothing charges. */
    public static final String BATTERY = "battery";

    /** The kinds that the bench knows, with the roles that parts have in them. */
    public static final Map<String, List<String>> ROLES =
            Map.of(
                    LOCK_CHAMBER, List.of("drives", "encoder", "ends", "gauges"),
                    BATTERY, List.of("voltage"));

    public Surrounding {
        parts =
                parts == null
                        ? Collections.emptySortedMap()
                        : Collections.unmodifiableSortedMap(new TreeMap<>(parts));
    }
}
