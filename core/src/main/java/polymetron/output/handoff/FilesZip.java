package polymetron.output.handoff;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.time.LocalDateTime;
import java.util.List;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import polymetron.output.HandoffFile;

/** Files in one ZIP archive, always the same bytes for the same files. */
final class FilesZip {
    // ZIP has no time zones and begins in 1980; a fixed time keeps the bytes the same.
    private static final LocalDateTime TIME = LocalDateTime.of(2026, 1, 1, 0, 0);

    private FilesZip() {}

    /**
     * @param folder folder in the archive that they are below
     */
    static byte[] of(String folder, List<HandoffFile> files) {
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        try (ZipOutputStream zip = new ZipOutputStream(bytes)) {
            for (HandoffFile file : files) {
                ZipEntry entry = new ZipEntry(folder + "/" + file.path());
                entry.setTimeLocal(TIME);
                zip.putNextEntry(entry);
                zip.write(file.bytes());
                zip.closeEntry();
            }
        } catch (IOException impossible) {
            throw new UncheckedIOException(impossible);
        }
        return bytes.toByteArray();
    }
}
