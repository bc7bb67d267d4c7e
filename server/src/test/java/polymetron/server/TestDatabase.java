package polymetron.server;

import java.io.IOException;
import java.net.ServerSocket;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Stream;

/** A throw-away PostgreSQL cluster on loopback. As root it runs as the user {@code postgres}. */
public final class TestDatabase implements AutoCloseable {
    private final Path folder;
    private final Path programs;
    private final int port;

    private TestDatabase(Path folder, Path programs, int port) {
        this.folder = folder;
        this.programs = programs;
        this.port = port;
    }

    public static TestDatabase start() throws IOException, InterruptedException {
        Path folder = Files.createTempDirectory("polymetron-test-db");
        TestDatabase database = new TestDatabase(folder, findPrograms(), freePort());
        if (isRoot()) {
            run(List.of("chown", "postgres", folder.toString()));
        }
        database.asOwner(
                "initdb",
                "-D",
                database.data(),
                "-U",
                "polymetron",
                "--auth=trust",
                "--no-sync",
                "-E",
                "UTF8");
        database.up();
        database.asOwner(
                "createdb",
                "-h",
                "127.0.0.1",
                "-p",
                Integer.toString(database.port),
                "-U",
                "polymetron",
                "polymetron");
        return database;
    }

    public String url() {
        return "jdbc:postgresql://127.0.0.1:" + port + "/polymetron";
    }

    /** Starts it, again after {@link #kill}. */
    public void up() throws IOException, InterruptedException {
        String options =
                "-p %d -c listen_addresses=127.0.0.1 -c unix_socket_directories=%s -c fsync=off"
                        .formatted(port, folder);
        asOwner(
                "pg_ctl",
                "-D",
                data(),
                "-w",
                "-o",
                options,
                "-l",
                folder.resolve("log").toString(),
                "start");
    }

    /** Ends it as a power cut would: every process at once. */
    public void kill() throws IOException, InterruptedException {
        String pid = Files.readAllLines(folder.resolve("data/postmaster.pid")).getFirst();
        ProcessHandle main = ProcessHandle.of(Long.parseLong(pid)).orElseThrow();
        List<ProcessHandle> all = new ArrayList<>(main.descendants().toList());
        all.add(main);
        all.forEach(ProcessHandle::destroyForcibly);
        while (main.isAlive()) {
            Thread.sleep(20);
        }
    }

    @Override
    public void close() throws IOException {
        try {
            asOwner("pg_ctl", "-D", data(), "-m", "immediate", "-w", "stop");
        } catch (InterruptedException end) {
            Thread.currentThread().interrupt();
        }
        try (Stream<Path> files = Files.walk(folder)) {
            for (Path file : files.sorted(java.util.Comparator.reverseOrder()).toList()) {
                Files.delete(file);
            }
        }
    }

    private String data() {
        return folder.resolve("data").toString();
    }

    private static boolean isRoot() {
        return System.getProperty("user.name").equals("root");
    }

    private void asOwner(String program, String... arguments)
            throws IOException, InterruptedException {
        List<String> command = new ArrayList<>();
        if (isRoot()) {
            command.addAll(List.of("runuser", "-u", "postgres", "--"));
        }
        command.add(programs.resolve(program).toString());
        command.addAll(List.of(arguments));
        run(command);
    }

    private static void run(List<String> command) throws IOException, InterruptedException {
        Path log = Files.createTempFile("polymetron-test", ".log");
        Process process =
                new ProcessBuilder(command)
                        .redirectErrorStream(true)
                        .redirectOutput(log.toFile())
                        .directory(new java.io.File("/"))
                        .start();
        if (process.waitFor() != 0) {
            throw new IOException(command + " failed: " + Files.readString(log));
        }
        Files.delete(log);
    }

    private static Path findPrograms() throws IOException {
        try (Stream<Path> versions = Files.list(Path.of("/usr/lib/postgresql"))) {
            return versions.map(version -> version.resolve("bin"))
                    .filter(bin -> Files.isExecutable(bin.resolve("initdb")))
                    .max(java.util.Comparator.naturalOrder())
                    .orElseThrow(
                            () ->
                                    new IOException(
                                            "PostgreSQL is not installed; ./polymetron test"
                                                    + " installs it"));
        }
    }

    private static int freePort() throws IOException {
        try (ServerSocket socket = new ServerSocket(0)) {
            return socket.getLocalPort();
        }
    }
}
