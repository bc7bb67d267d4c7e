package polymetron.server.store;

import java.time.OffsetDateTime;
import java.util.UUID;

/**
 * A platform in a list.
 *
 * @param summary null where it is not worked out yet
 */
public record PlatformRow(
        UUID id,
        String name,
        long revision,
        OffsetDateTime savedAt,
        OffsetDateTime createdAt,
        Summary summary) {
    PlatformRow with(Summary made) {
        return new PlatformRow(id, name, revision, savedAt, createdAt, made);
    }
}
