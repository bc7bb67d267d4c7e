package polymetron.bench.foreign;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.SortedMap;
import java.util.TreeMap;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import polymetron.bench.machine.BenchException;
import polymetron.library.HardwareSources;
import polymetron.ownblock.OwnBlock;
import polymetron.ownblock.TestFiles;

/** A test of a block with all files that it needs, in a folder of its own, and compiled by Verilator. */
final class BuiltTest implements AutoCloseable {
    private static final int LONGEST_BUILD = 240;

    private static final List<String> OPTIONS =
            Stream.of(
                            List.of("verilator", "--binary", "--timing", "--assert", "-O3"),
                            List.of("--x-assign", "0", "--x-initial", "0", "--bbox-sys"),
                            List.of("-CFLAGS", "-O1", "-Mdir", "obj", "-o", "test"),
                            List.of("-Wno-fatal", "-Wno-lint", "-Wno-style", "-Wno-TIMESCALEMOD"),
                            List.of("-I."))
                    .flatMap(List::stream)
                    .toList();

    private static final Pattern ERROR = Pattern.compile("(?m)^%Error[^:]*: (?!Exiting)(.*)$");

    private final Sandbox sandbox;
    private final Path folder;
    private final String name;
    private final OwnBlock block;
    private final Path work;

    /**
     * @param folder where its own folder is made
     * @param name the test's file
     * @param common modules of the library that the block may use
     */
    BuiltTest(Sandbox sandbox, Path folder, String name, OwnBlock block, HardwareSources common)
            throws IOException {
        this.sandbox = sandbox;
        this.folder = folder;
        this.name = name;
        this.block = block;
        this.work = Files.createTempDirectory(folder, "test");
        SortedMap<String, String> files = new TreeMap<>(common.common());
        files.putAll(block.hardware());
        files.put(name, block.tests().get(name));
        for (Map.Entry<String, String> each : files.entrySet()) {
            Files.writeString(work.resolve(each.getKey()), each.getValue());
        }
        Folders.open(work);
        Folders.open(Files.createDirectory(work.resolve("obj")));
    }

    Path work() {
        return work;
    }

    String name() {
        return name;
    }

    SandboxedTool tool() {
        return new SandboxedTool(sandbox, folder);
    }

    /**
     * @param besides files that are in the folder by now
     * @throws BenchException when it does not compile; the message has what Verilator says
     */
    BuiltTest compile(List<String> besides) throws IOException, InterruptedException {
        new VerilatorRuntime(sandbox, folder, OPTIONS).into(work.resolve("obj"));
        List<String> command = new ArrayList<>(OPTIONS);
        String top = TestFiles.top(name, block.tests().get(name)).orElseThrow();
        command.addAll(List.of("--top-module", top, "-y", "."));
        block.hardware().keySet().stream()
                .filter(file -> !file.endsWith("h"))
                .forEach(command::add);
        command.addAll(besides);
        command.add(name);
        SandboxedTool.Ended ended =
                tool().run(work, command, LONGEST_BUILD)
                        .orElseThrow(
                                () ->
                                        new BenchException(
                                                "%s is not compiled in %s s"
                                                        .formatted(name, LONGEST_BUILD)));
        if (ended.status() != 0) {
            String why =
                    ERROR.matcher(ended.said())
                            .results()
                            .limit(3)
                            .map(found -> VerilatorWords.explained(found.group(1)))
                            .collect(Collectors.joining("; "));
            throw new BenchException(why.isEmpty() ? name + " is not compiled" : why);
        }
        return this;
    }

    /**
     * @param fault the one that is on; 0 for none
     * @return empty where it does not come to an end
     */
    Optional<SandboxedTool.Ended> run(int fault, int seconds)
            throws IOException, InterruptedException {
        return tool().test(work, List.of("./obj/test", "+FAULT=" + fault), seconds);
    }

    @Override
    public void close() throws IOException {
        Folders.remove(work);
    }
}
