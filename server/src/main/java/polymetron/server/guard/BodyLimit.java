package polymetron.server.guard;

import polymetron.json.SchemaFile;
import polymetron.output.image.ElfReader;

/** How large the body of a request may be, in bytes. */
final class BodyLimit {
    static final long SMALL = 2L * 1024 * 1024;

    private BodyLimit() {}

    static long of(String path) {
        if (path.endsWith("/programs")) {
            return ElfReader.LARGEST;
        }
        return path.endsWith("/platforms/import") ? SchemaFile.LONGEST : SMALL;
    }
}
