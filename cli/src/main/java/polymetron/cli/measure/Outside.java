package polymetron.cli.measure;

import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;

/** Runs the tools that are compared with. */
final class Outside {
    private Outside() {}

    /** Nanoseconds from start to end, process start included. */
    static long run(Path folder, List<String> command) throws IOException, InterruptedException {
        Path log = folder.resolve("outside.log");
        long start = System.nanoTime();
        Process process =
                new ProcessBuilder(command)
                        .directory(folder.toFile())
                        .redirectErrorStream(true)
                        .redirectOutput(log.toFile())
                        .redirectInput(Path.of("/dev/null").toFile())
                        .start();
        int status = process.waitFor();
        long end = System.nanoTime();
        if (status != 0) {
            throw new IOException(
                    "%s ended with %d: %s"
                            .formatted(String.join(" ", command), status, Files.readString(log)));
        }
        return end - start;
    }

    /** Compiles a source that ships with the measurements for the RV32IM processor. */
    static Path compile(Path folder, String source, String out, List<String> options)
            throws IOException, InterruptedException {
        try (InputStream in = Outside.class.getResourceAsStream(source)) {
            Files.write(folder.resolve(source), in.readAllBytes());
        }
        List<String> command =
                new ArrayList<>(
                        List.of(
                                "riscv64-unknown-elf-gcc",
                                "-march=rv32im",
                                "-misa-spec=2.2",
                                "-mabi=ilp32",
                                "-O2",
                                "-ffreestanding",
                                "-nostdlib",
                                "-nostartfiles",
                                "-mcmodel=medany"));
        command.addAll(options);
        command.addAll(List.of(source, "-lgcc", "-o", out));
        run(folder, command);
        return folder.resolve(out);
    }

    static void write(Path folder, String name, String text) throws IOException {
        Files.write(folder.resolve(name), text.getBytes(StandardCharsets.UTF_8));
    }
}
