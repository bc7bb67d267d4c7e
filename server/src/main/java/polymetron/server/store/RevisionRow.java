package polymetron.server.store;

import java.time.OffsetDateTime;

/**
 * A revision in the history of a platform.
 *
 * @param name given to it by a user; null for none
 * @param repeats the earlier revision that an undo or redo put on top again; null for a change
 */
public record RevisionRow(
        long number,
        String title,
        OffsetDateTime madeAt,
        Author author,
        String name,
        Long repeats) {}
