package polymetron.server.store;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.util.UUID;
import org.springframework.stereotype.Component;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.Elaborator;

/** Worked-out platforms, kept as long as they are used. Any server can work one out again. */
@Component
public class Elaborations {
    private static final int MOST = 64;

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
                key -> new Elaborator(current.library()).elaborate(stored.platform()));
    }
}
