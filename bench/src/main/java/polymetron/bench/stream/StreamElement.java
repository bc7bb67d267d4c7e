package polymetron.bench.stream;

import java.util.Map;

/**
 * Something that streams come from or go to, one edge of its clock after the other, as its hardware does: at an edge it is told
 * what its ports did, and changes its state; from then on the ports show what it offers and takes.
 */
public interface StreamElement {
    /** Nothing to do by itself. */
    long FOREVER = Long.MAX_VALUE;

    /** Its sinks by the names of its interfaces. */
    default Map<String, SinkPort> sinks() {
        return Map.of();
    }

    /** Its sources by the names of its interfaces. */
    default Map<String, SourcePort> sources() {
        return Map.of();
    }

    /** An edge of its clock, with what its ports did at it. */
    void edge();

    /**
     * For how many edges nothing happens, as long as nothing comes and nothing goes: counting is left to {@link #skip}.
     *
     * @return 0 where the next edge matters; {@link #FOREVER} where it only waits
     */
    long quietFor();

    /** Lets edges pass at which nothing happens. */
    default void skip(long edges) {}

    /** Back to the state after reset. */
    void resetStream();
}
