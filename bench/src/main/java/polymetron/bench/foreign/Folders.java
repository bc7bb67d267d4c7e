package polymetron.bench.foreign;

import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.Comparator;
import java.util.stream.Stream;

/** Folders that are made for a while. */
final class Folders {
    private Folders() {}

    /** Lets a sandbox write here, which is another user. */
    static void open(Path folder) throws IOException {
        Files.setPosixFilePermissions(folder, PosixFilePermissions.fromString("rwxrwxrwx"));
    }

    /** Writes a file where foreign programs could write as well: no link of theirs is followed. */
    static void write(Path file, String text) throws IOException {
        Files.deleteIfExists(file);
        Files.writeString(file, text, StandardOpenOption.CREATE_NEW, StandardOpenOption.WRITE);
    }

    /** Reads such a file. */
    static String read(Path file) throws IOException {
        try (InputStream in = Files.newInputStream(file, LinkOption.NOFOLLOW_LINKS)) {
            return new String(in.readAllBytes(), StandardCharsets.UTF_8);
        }
    }

    static void remove(Path folder) throws IOException {
        try (Stream<Path> all = Files.walk(folder)) {
            for (Path each : all.sorted(Comparator.reverseOrder()).toList()) {
                Files.deleteIfExists(each);
            }
        }
    }
}
