package polymetron.server.store;

import java.time.OffsetDateTime;
import java.util.UUID;

/**
 * A platform in a list.
 *
 * @param by what the author of its newest revision calls themselves; null where they do not say
 * @param summary null where it is not worked out yet
 */
public record PlatformRow(
        UUID id,
        String name,
        long revision,
        OffsetDateTime savedAt,
        OffsetDateTime createdAt,
        String by,
        Summary summary) {
    PlatformRow with(Summary made) {
        return new PlatformRow(id, name, revision, savedAt, createdAt, by, made);
    }
}
