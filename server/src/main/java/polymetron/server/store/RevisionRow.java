package polymetron.server.store;

import java.time.OffsetDateTime;

/** A revision in the history of a platform. */
public record RevisionRow(long number, String title, OffsetDateTime madeAt, Author author) {}
