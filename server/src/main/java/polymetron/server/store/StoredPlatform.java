package polymetron.server.store;

import java.time.OffsetDateTime;
import java.util.UUID;
import polymetron.platform.Platform;

/**
 * The newest revision of a platform.
 *
 * @param undoTitle what undo would take back; null when there is nothing
 * @param redoTitle what redo would do again; null when there is nothing
 */
public record StoredPlatform(
        UUID id,
        long revision,
        Platform platform,
        OffsetDateTime savedAt,
        String undoTitle,
        String redoTitle) {}
