package polymetron.server.store;

import java.time.OffsetDateTime;
import java.util.UUID;

/** A platform in a list. */
public record PlatformRow(
        UUID id, String name, long revision, OffsetDateTime savedAt, OffsetDateTime createdAt) {}
