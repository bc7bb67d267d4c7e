package polymetron.bench.foreign;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.TimeUnit;

/** Compilers within the sandbox, one at a time and with an end. */
final class SandboxedTool {
    /** What is read of what a tool says. */
    private static final int MOST_SAID = 1 << 20;

    private final Sandbox sandbox;
    private final Path logs;

    /**
     * @param logs folder for what tools say meanwhile
     */
    SandboxedTool(Sandbox sandbox, Path logs) {
        this.sandbox = sandbox;
        this.logs = logs;
    }

    /** How a tool ended, and what it said. */
    record Ended(int status, String said) {}

    /**
     * @param work folder that it may write to
     * @return empty when it did not come to an end in time
     */
    Optional<Ended> run(Path work, List<String> command, int seconds)
            throws IOException, InterruptedException {
        return run(work, true, Sandbox.Limits.BUILD, command, seconds);
    }

    /**
     * The same of what was built: it may write nowhere.
     *
     * @param work folder that it sees
     */
    Optional<Ended> test(Path work, List<String> command, int seconds)
            throws IOException, InterruptedException {
        return run(work, false, Sandbox.Limits.TEST, command, seconds);
    }

    private Optional<Ended> run(
            Path work, boolean writes, Sandbox.Limits limits, List<String> command, int seconds)
            throws IOException, InterruptedException {
        Path log = Files.createTempFile(logs, "build", ".log");
        try {
            Process process =
                    new ProcessBuilder(sandbox.command(work, writes, limits, command))
                            .redirectErrorStream(true)
                            .redirectOutput(log.toFile())
                            .start();
            try {
                if (!process.waitFor(seconds, TimeUnit.SECONDS)) {
                    return Optional.empty();
                }
            } finally {
                process.descendants().forEach(ProcessHandle::destroyForcibly);
                process.destroyForcibly();
            }
            try (var said = Files.newInputStream(log)) {
                return Optional.of(
                        new Ended(
                                process.exitValue(),
                                new String(
                                        said.readNBytes(MOST_SAID), StandardCharsets.ISO_8859_1)));
            }
        } finally {
            Files.delete(log);
        }
    }
}
