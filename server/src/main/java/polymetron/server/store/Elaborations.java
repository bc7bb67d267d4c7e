package polymetron.server.store;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.util.UUID;
import org.springframework.stereotype.Component;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.Elaborator;
import polymetron.library.Library;

/** Worked-out platforms, kept as long as they are used. Any server can work one out again. */
@Component
public class Elaborations {
    private static final int MOST = 64;

    private record Key(UUID id, long revision) {}

    private final Cache<Key, ElaboratedPlatform> cache =
            Caffeine.newBuilder().maximumSize(MOST).build();
    private final Elaborator elaborator;

    public Elaborations(Library library) {
        this.elaborator = new Elaborator(library);
    }

    public ElaboratedPlatform of(StoredPlatform stored) {
        return cache.get(
                new Key(stored.id(), stored.revision()),
                key -> elaborator.elaborate(stored.platform()));
    }
}
