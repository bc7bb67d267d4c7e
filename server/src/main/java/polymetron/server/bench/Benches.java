package polymetron.server.bench;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import com.github.benmanes.caffeine.cache.RemovalCause;
import jakarta.annotation.PreDestroy;
import java.time.Duration;
import java.util.Optional;
import java.util.UUID;
import org.springframework.stereotype.Component;
import polymetron.bench.live.LiveBench;

/** The benches of this server, one a platform. A bench that nobody looks at for ten minutes is put away. */
@Component
class Benches {
    private static final int MOST = 8;
    private static final Duration IDLE = Duration.ofMinutes(10);

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
                    .maximumSize(MOST)
                    .expireAfterAccess(IDLE)
                    .removalListener(
                            (UUID id, Loaded loaded, RemovalCause cause) -> loaded.bench().close())
                    .build();

    void put(UUID platform, Loaded loaded) {
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
