package polymetron.outside;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.TimeUnit;
import java.util.stream.Stream;

/**
 * Runs a general-purpose tool that something is checked against. A missing tool fails the test: {@code ./polymetron
 * test} installs them all.
 */
public final class Tool {
    private Tool() {}

    /** What a tool printed (both streams) and how it ended. */
    public record Outcome(int status, String output) {}

    /** Runs a tool that has to succeed; returns what it printed. */
    public static String run(Path folder, String... command) {
        Outcome outcome = tryRun(folder, command);
        if (outcome.status() != 0) {
            throw new AssertionError(
                    String.join(" ", command)
                            + " ended with "
                            + outcome.status()
                            + ":\n"
                            + outcome.output());
        }
        return outcome.output();
    }

    public static Outcome tryRun(Path folder, String... command) {
        try {
            Path log = Files.createTempFile("polymetron-tool", ".log");
            Process process =
                    new ProcessBuilder(List.of(command))
                            .directory(folder.toFile())
                            .redirectErrorStream(true)
                            .redirectOutput(log.toFile())
                            .start();
            if (!process.waitFor(300, TimeUnit.SECONDS)) {
                process.destroyForcibly();
                throw new AssertionError(String.join(" ", command) + " does not end");
            }
            String output = Files.readString(log, StandardCharsets.ISO_8859_1);
            Files.delete(log);
            return new Outcome(process.exitValue(), output);
        } catch (IOException failure) {
            throw new UncheckedIOException(failure);
        } catch (InterruptedException end) {
            throw new IllegalStateException(end);
        }
    }

    /** A command line of words, and files behind them. */
    public static String[] command(String words, List<String> files) {
        return Stream.concat(Stream.of(words.split(" ")), files.stream()).toArray(String[]::new);
    }

    public static Path write(Path folder, String name, byte[] bytes) {
        try {
            Path file = folder.resolve(name);
            Files.createDirectories(file.getParent());
            return Files.write(file, bytes);
        } catch (IOException failure) {
            throw new UncheckedIOException(failure);
        }
    }

    public static Path write(Path folder, String name, String text) {
        return write(folder, name, text.getBytes(StandardCharsets.UTF_8));
    }
}
