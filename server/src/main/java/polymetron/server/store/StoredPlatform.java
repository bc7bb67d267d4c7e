package polymetron.server.store;

import java.time.OffsetDateTime;
import java.util.UUID;
import polymetron.platform.Platform;

/**
 * A revision of a platform, mostly the newest.
 *
 * @param undoTitle what undo would take back; null when there is nothing, or it is not the newest
 * @param undoBy who made what undo would take back; null when there is nothing
 * @param redoTitle what redo would do again; null when there is nothing
 */
public record StoredPlatform(
        UUID id,
        long revision,
        Platform platform,
        OffsetDateTime savedAt,
        String undoTitle,
        Author undoBy,
        String redoTitle) {}
