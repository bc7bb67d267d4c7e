package polymetron.server.store;

import java.time.OffsetDateTime;
import java.util.UUID;

/** A program that was uploaded for a platform. */
public record Program(
        UUID id, String name, String sha256, int sizeBytes, OffsetDateTime uploadedAt) {}
