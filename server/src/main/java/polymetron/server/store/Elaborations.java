package polymetron.server.store;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.util.UUID;
import java.util.concurrent.Semaphore;
import java.util.concurrent.TimeUnit;
import org.springframework.stereotype.Component;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.Elaborator;
import polymetron.server.budget.Busy;

/**
 * Worked-out platforms, kept as long as they are used. Any server can work one out again. Only so many are worked out
 * at a time; who would have to wait long for a turn is sent away, and may come again.
 */
@Component
public class Elaborations {
    private static final int MOST = 64;
    private static final int AT_A_TIME = Math.max(2, Runtime.getRuntime().availableProcessors());
    private static final int TURN_SECONDS = 20;

    private final Semaphore turns = new Semaphore(AT_A_TIME, true);

    private record Key(UUID id, long revision, Libraries.Edition library) {}

    private final Cache<Key, ElaboratedPlatform> cache =
            Caffeine.newBuilder().maximumSize(MOST).build();
    private final Libraries libraries;

    public Elaborations(Libraries libraries) {
        this.libraries = libraries;
    }

    public ElaboratedPlatform of(StoredPlatform stored) {
        Libraries.Current current = libraries.currentEdition();
        return cache.get(
                new Key(stored.id(), stored.revision(), current.edition()),
                key -> workOut(current, stored));
    }

    private ElaboratedPlatform workOut(Libraries.Current current, StoredPlatform stored) {
        try {
            if (!turns.tryAcquire(TURN_SECONDS, TimeUnit.SECONDS)) {
                throw new Busy("other platforms are being worked out; try again in a moment");
            }
        } catch (InterruptedException end) {
            Thread.currentThread().interrupt();
            throw new Busy("the server is ending");
        }
        try {
            return new Elaborator(current.library()).elaborate(stored.platform());
        } finally {
            turns.release();
        }
    }
}
