package polymetron.server.store;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.util.List;
import java.util.UUID;
import java.util.concurrent.Semaphore;
import java.util.concurrent.TimeUnit;
import org.springframework.stereotype.Component;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.Elaborator;
import polymetron.finding.Checks;
import polymetron.finding.Finding;
import polymetron.server.budget.Busy;

/**
 * Worked-out platforms, kept as long as they are used. Any server can work one out again. Only so many are worked out
 * at a time; who would have to wait long for a turn is sent away, and may come again.
 */
@Component
public class Elaborations {
    private static final int MOST_BLOCKS = 20_000;
    private static final int AT_A_TIME = Math.max(2, Runtime.getRuntime().availableProcessors());
    private static final int TURN_SECONDS = 20;

    private final Semaphore turns = new Semaphore(AT_A_TIME, true);

    private record Key(UUID id, long revision, Libraries.Edition library) {}

    private final Cache<Key, Worked> cache =
            Caffeine.newBuilder()
                    .maximumWeight(MOST_BLOCKS)
                    .weigher((Key key, Worked worked) -> 50 + worked.platform().blocks().size())
                    .build();
    private final Libraries libraries;

    public Elaborations(Libraries libraries) {
        this.libraries = libraries;
    }

    /** A platform and what the checks say about it. */
    public record Worked(ElaboratedPlatform platform, List<Finding> findings) {}

    public ElaboratedPlatform of(StoredPlatform stored) {
        return worked(stored).platform();
    }

    public Worked worked(StoredPlatform stored) {
        Libraries.Current current = libraries.currentEdition();
        Key key = new Key(stored.id(), stored.revision(), current.edition());
        Worked known = cache.getIfPresent(key);
        if (known != null) {
            return known;
        }
        try {
            if (!turns.tryAcquire(TURN_SECONDS, TimeUnit.SECONDS)) {
                throw new Busy("other platforms are being worked out; try again in a moment");
            }
        } catch (InterruptedException end) {
            Thread.currentThread().interrupt();
            throw new Busy("the server is ending");
        }
        try {
            // Others may have wanted the same, and have waited less.
            known = cache.getIfPresent(key);
            if (known == null) {
                ElaboratedPlatform platform =
                        new Elaborator(current.library()).elaborate(stored.platform());
                known = new Worked(platform, Checks.run(platform));
                cache.put(key, known);
            }
            return known;
        } finally {
            turns.release();
        }
    }
}
