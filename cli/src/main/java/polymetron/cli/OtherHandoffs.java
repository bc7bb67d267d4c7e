package polymetron.cli;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.stream.Stream;

/** Hand-offs of other platforms in a folder, told by their address maps. */
final class OtherHandoffs {
    private static final String MAP = "_map.json";

    private OtherHandoffs() {}

    /** Their base names, in alphabetical order. */
    static List<String> in(Path folder, String own) throws IOException {
        if (!Files.isDirectory(folder)) {
            return List.of();
        }
        try (Stream<Path> files = Files.list(folder)) {
            return files.map(file -> file.getFileName().toString())
                    .filter(name -> name.endsWith(MAP))
                    .map(name -> name.substring(0, name.length() - MAP.length()))
                    .filter(name -> !name.equals(own))
                    .sorted()
                    .toList();
        }
    }
}
