package polymetron.server.platform;

import jakarta.annotation.Nullable;
import java.util.List;

/**
 * What one initiator sees: every target with the way to it and what a read costs.
 *
 * @param initiator as block.interface
 * @param bus bus that it is on; missing for one that sees the inside of its block only
 * @param burst transfers of its longest burst
 * @param traffic bandwidth that it requires, in bytes a second; missing when not specified
 */
public record SpaceView(
        long revision,
        String initiator,
        String label,
        @Nullable String bus,
        int burst,
        @Nullable Long traffic,
        List<SeenView> seen) {
    /**
     * A target as it is seen.
     *
     * @param own its address on the bus that it is on; missing where it is the same
     * @param path buses and bridges on the way, in order
     * @param leastCycles fewest cycles of the initiator's bus for a single read
     * @param cycles the most of them without other traffic
     * @param worstCycles most cycles of a single access while all others keep the way as busy as they can; missing where they
     *     go first and there is no limit
     * @param burstCycles the same for its longest burst; missing where it has none
     * @param steps parts of the way with their cycles, in words
     * @param elsewhere who sees it at another address, and where
     */
    public record SeenView(
            String label,
            String block,
            String busInterface,
            String base,
            String last,
            String size,
            boolean memory,
            boolean held,
            @Nullable String own,
            List<String> path,
            long leastCycles,
            long cycles,
            @Nullable Long worstCycles,
            @Nullable Long burstCycles,
            List<String> steps,
            List<String> elsewhere) {}
}
