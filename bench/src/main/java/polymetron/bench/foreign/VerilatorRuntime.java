package polymetron.bench.foreign;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.FileSystemException;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.attribute.FileTime;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HexFormat;
import java.util.List;
import java.util.regex.Pattern;
import java.util.stream.Stream;

/**
 * The part of each model that does not depend on its HDL, compiled once: it takes four fifths of the time in which the model of a
 * small block is made. It is made from an empty module of our own, so that no HDL of others had a hand in it, and kept by what made
 * it: version and options.
 */
final class VerilatorRuntime {
    private static final int LONGEST_SECONDS = 120;
    private static final Duration LONGER_THAN_A_BUILD = Duration.ofHours(1);
    private static final Pattern OBJECT = Pattern.compile("verilated\\w*\\.o");
    private static final String MAIN = "int main() { return 0; }\n";

    /** Waits, since what is needed for that is a part of its own. */
    private static final String EMPTY = "module harness; initial #1 $finish; endmodule\n";

    private final Sandbox sandbox;
    private final Path kept;
    private final List<String> options;

    /**
     * @param kept folder of what was compiled before
     * @param options those with which models are built
     */
    VerilatorRuntime(Sandbox sandbox, Path kept, List<String> options) {
        this.sandbox = sandbox;
        this.kept = kept;
        this.options = List.copyOf(options);
    }

    /** Puts it into the folder in which a model is built. Where that fails the build of the model makes it again, or says why not. */
    void into(Path folder) throws IOException, InterruptedException {
        Path objects = objects();
        if (!Files.isDirectory(objects)) {
            return;
        }
        // The makefile that will be written makes again what is older than itself.
        FileTime afterwards = FileTime.from(Instant.now().plus(LONGER_THAN_A_BUILD));
        for (Path each : list(objects)) {
            Path copy = Files.copy(each, folder.resolve(each.getFileName()));
            Files.setLastModifiedTime(copy, afterwards);
        }
    }

    private static List<Path> list(Path folder) throws IOException {
        try (Stream<Path> all = Files.list(folder)) {
            return all.filter(each -> OBJECT.matcher(each.getFileName().toString()).matches())
                    .filter(each -> Files.isRegularFile(each, LinkOption.NOFOLLOW_LINKS))
                    .toList();
        }
    }

    private Path objects() throws IOException, InterruptedException {
        Path work = Files.createTempDirectory(kept, "runtime");
        try {
            Folders.open(work);
            SandboxedTool tool = new SandboxedTool(sandbox, kept);
            String version =
                    tool.run(work, List.of("verilator", "--version"), LONGEST_SECONDS)
                            .map(SandboxedTool.Ended::said)
                            .orElse("");
            Path folder = kept.resolve("runtime-" + key(version));
            if (Files.isDirectory(folder)) {
                return folder;
            }
            Files.writeString(work.resolve("empty.v"), EMPTY);
            List<String> command = new ArrayList<>(options);
            command.add("empty.v");
            if (options.contains("--exe")) {
                Files.writeString(work.resolve("main.cpp"), MAIN);
                command.add("main.cpp");
            }
            tool.run(work, command, LONGEST_SECONDS);
            keep(work.resolve("obj"), folder);
            return folder;
        } finally {
            Folders.remove(work);
        }
    }

    private void keep(Path built, Path folder) throws IOException {
        if (!Files.isDirectory(built, LinkOption.NOFOLLOW_LINKS) || list(built).isEmpty()) {
            return;
        }
        Path whole = Files.createTempDirectory(kept, "runtime");
        for (Path each : list(built)) {
            Files.copy(each, whole.resolve(each.getFileName()));
        }
        try {
            Files.move(whole, folder, StandardCopyOption.ATOMIC_MOVE);
        } catch (FileSystemException another) {
            // Two were built at once: they are the same.
            Folders.remove(whole);
        }
    }

    private String key(String version) {
        try {
            MessageDigest digest = MessageDigest.getInstance("SHA-256");
            digest.update(version.getBytes(StandardCharsets.UTF_8));
            digest.update(String.join(" ", options).getBytes(StandardCharsets.UTF_8));
            return HexFormat.of().formatHex(digest.digest(), 0, 12);
        } catch (NoSuchAlgorithmException impossible) {
            throw new IllegalStateException(impossible);
        }
    }
}
