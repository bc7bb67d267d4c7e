package polymetron.server.guard;

import polymetron.json.SchemaFile;
import polymetron.output.image.ElfReader;

/** How large the body of a request may be, in bytes. */
final class BodyLimit {
    static final long SMALL = 2L * 1024 * 1024;

    /** Samples of a converter: some hundred thousand rows. */
    private static final long SAMPLES = 16L * 1024 * 1024;

    /** A block with its files. */
    private static final long BLOCK = 8L * 1024 * 1024;

    private BodyLimit() {}

    static long of(String path) {
        if (path.endsWith("/programs")) {
            return ElfReader.LARGEST;
        }
        if (path.endsWith("/samples")) {
            return SAMPLES;
        }
        if (path.startsWith("/api/library/blocks")) {
            return BLOCK;
        }
        return path.endsWith("/platforms/import") ? SchemaFile.LONGEST : SMALL;
    }
}
