package polymetron.bench.foreign;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.TimeUnit;

/**
 * Where programs run that are built from user-supplied Verilog: without a network, as an unprivileged user, seeing the machine's programs read-only
 * and one folder of their own, with limits on memory, time, files and processes. Bubblewrap makes the namespaces, prlimit the
 * limits; where either is missing nothing runs.
 *
 * @param wrap path of bubblewrap
 * @param limit path of prlimit
 */
record Sandbox(Path wrap, Path limit) {
    private static final long MEBI = 1 << 20;
    private static final List<Path> FOLDERS =
            List.of(Path.of("/usr/bin"), Path.of("/bin"), Path.of("/usr/local/bin"));

    /** What a program may use. */
    record Limits(long memoryBytes, long cpuSeconds, long fileBytes, int processes) {
        /** Compilers. */
        static final Limits BUILD = new Limits(3072 * MEBI, 240, 256 * MEBI, 256);

        /** A test of a block: it writes nothing but what it says. */
        static final Limits TEST = new Limits(768 * MEBI, 60, 16 * MEBI, 16);

        /** A block that is stepped: it writes nothing. */
        static final Limits RUN = new Limits(768 * MEBI, 24 * 3600, 0, 16);
    }

    private static Optional<Path> program(String name) {
        return FOLDERS.stream()
                .map(folder -> folder.resolve(name))
                .filter(Files::isExecutable)
                .findFirst();
    }

    /** The sandbox of this machine, where it works. */
    static Optional<Sandbox> find() {
        Optional<Path> wrap = program("bwrap");
        Optional<Path> limit = program("prlimit");
        if (wrap.isEmpty() || limit.isEmpty()) {
            return Optional.empty();
        }
        Sandbox sandbox = new Sandbox(wrap.get(), limit.get());
        return sandbox.works() ? Optional.of(sandbox) : Optional.empty();
    }

    private boolean works() {
        try {
            Process tried =
                    new ProcessBuilder(
                                    command(
                                            Path.of("/usr"),
                                            false,
                                            Limits.RUN,
                                            List.of("/usr/bin/true")))
                            .redirectErrorStream(true)
                            .redirectOutput(ProcessBuilder.Redirect.DISCARD)
                            .start();
            return tried.waitFor(10, TimeUnit.SECONDS) && tried.exitValue() == 0;
        } catch (IOException | InterruptedException impossible) {
            return false;
        }
    }

    /**
     * A command within it.
     *
     * @param folder its only folder, at {@code /work}
     * @param writes whether it may write there
     */
    List<String> command(Path folder, boolean writes, Limits limits, List<String> command) {
        List<String> all = new ArrayList<>(List.of(wrap.toString()));
        all.addAll(List.of("--unshare-all", "--die-with-parent", "--new-session", "--clearenv"));
        all.addAll(List.of("--uid", "65534", "--gid", "65534", "--hostname", "bench"));
        all.addAll(List.of("--ro-bind", "/usr", "/usr"));
        for (String each : List.of("/bin", "/lib", "/lib64", "/etc/alternatives")) {
            all.addAll(List.of("--ro-bind-try", each, each));
        }
        all.addAll(List.of("--proc", "/proc", "--dev", "/dev", "--tmpfs", "/tmp"));
        all.addAll(
                List.of(
                        writes ? "--bind" : "--ro-bind",
                        folder.toAbsolutePath().toString(),
                        "/work"));
        all.addAll(List.of("--chdir", "/work", "--setenv", "PATH", "/usr/bin:/bin"));
        all.addAll(List.of("--setenv", "HOME", "/tmp"));
        all.addAll(
                List.of(
                        limit.toString(),
                        "--as=" + limits.memoryBytes(),
                        "--cpu=" + limits.cpuSeconds(),
                        "--fsize=" + limits.fileBytes(),
                        "--nproc=" + limits.processes(),
                        "--core=0"));
        all.addAll(command);
        return all;
    }
}
