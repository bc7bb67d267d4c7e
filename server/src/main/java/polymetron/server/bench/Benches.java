package polymetron.server.bench;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import com.github.benmanes.caffeine.cache.RemovalCause;
import jakarta.annotation.PreDestroy;
import java.time.Duration;
import java.util.Optional;
import java.util.UUID;
import org.springframework.stereotype.Component;
import polymetron.bench.hart.MemoryShare;
import polymetron.bench.live.LiveBench;
import polymetron.server.budget.Busy;

/**
 * The benches of this server, one a platform. A bench that is not looked at for ten minutes is put away, or sooner when
 * there is no room for another.
 */
@Component
class Benches {
    private static final int MOST = 8;
    private static final Duration IDLE = Duration.ofMinutes(10);

    /** After so long without a look no browser has the bench open: a stream of events looks many times a second. */
    private static final Duration UNWATCHED = Duration.ofSeconds(20);

    private static final long MEMORY_BYTES = 384L << 20;

    private final MemoryShare.Pool pool = new MemoryShare.Pool(MEMORY_BYTES);

    /**
     * A running bench and what was put on it.
     *
     * @param load tells one loading from another
     */
    record Loaded(
            String load,
            LiveBench bench,
            long revision,
            String fingerprint,
            UUID program,
            String programName,
            String mismatch) {}

    private final Cache<UUID, Loaded> benches =
            Caffeine.newBuilder()
                    .expireAfterAccess(IDLE)
                    .executor(Runnable::run)
                    .removalListener(
                            (UUID id, Loaded loaded, RemovalCause cause) -> loaded.bench().close())
                    .build();

    /** Memory for a bench that is to be loaded. */
    MemoryShare share() {
        return pool.share();
    }

    /**
     * Puts a bench in the place of the one that the platform has. When there are as many as can be, one that no browser
     * looks at goes.
     *
     * @throws Busy when all are looked at; then the new one is closed
     */
    synchronized void put(UUID platform, Loaded loaded) {
        benches.cleanUp();
        if (benches.getIfPresent(platform) == null && benches.estimatedSize() >= MOST) {
            var ages = benches.policy().expireAfterAccess().orElseThrow();
            UUID unwatched =
                    ages.oldest(1).keySet().stream()
                            .filter(
                                    id ->
                                            ages.ageOf(id)
                                                    .map(age -> age.compareTo(UNWATCHED) > 0)
                                                    .orElse(true))
                            .findFirst()
                            .orElseThrow(
                                    () -> {
                                        loaded.bench().close();
                                        return new Busy(
                                                "%s benches run here, and all are looked at; put one away"
                                                        .formatted(MOST));
                                    });
            benches.invalidate(unwatched);
        }
        benches.put(platform, loaded);
    }

    Optional<Loaded> find(UUID platform) {
        return Optional.ofNullable(benches.getIfPresent(platform));
    }

    void remove(UUID platform) {
        benches.invalidate(platform);
    }

    @PreDestroy
    void close() {
        benches.invalidateAll();
        benches.cleanUp();
    }
}
