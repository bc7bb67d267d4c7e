package polymetron.bench.foreign;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.SortedMap;
import java.util.TreeMap;
import java.util.concurrent.Semaphore;
import java.util.concurrent.TimeUnit;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import polymetron.bench.machine.BenchException;
import polymetron.hdl.HdlReader;
import polymetron.library.HardwareSources;
import polymetron.output.hardware.VhdlEntity;
import polymetron.ownblock.CompiledSet;
import polymetron.ownblock.OwnBlock;

/**
 * What compilers say of a block's HDL, with up to three sets of its parameters: GHDL of VHDL, Verilator of Verilog and of what GHDL
 * makes. The module around a person's own is made from what is read here of its ports, so a name, direction or width that was read
 * wrongly is said as well.
 */
public final class CompilerCheck {
    private static final int PATIENCE_SECONDS = 60;
    private static final int MOST = 100;

    private static final Pattern OF_VERILATOR =
            Pattern.compile("%(Error|Warning)(?:-(\\w+))?: ([\\w.]+):(\\d+):(?:\\d+:)? *(.*)");

    private static final Pattern OF_GHDL =
            Pattern.compile("([\\w.]+):(\\d+):\\d+: ?(?:(error|warning|note): ?)?(.*)");

    private static final Pattern ERROR = Pattern.compile("(?:%Error|ghdl:error|.*\\berror): *(.*)");

    private final Sandbox sandbox;
    private final Path folder;
    private final boolean canConvert;
    private final int longestSeconds;
    private final Semaphore turn = new Semaphore(1);

    CompilerCheck(Sandbox sandbox, Path folder, boolean canConvert) {
        this(sandbox, folder, canConvert, PATIENCE_SECONDS);
    }

    private CompilerCheck(Sandbox sandbox, Path folder, boolean canConvert, int longestSeconds) {
        this.longestSeconds = longestSeconds;
        this.sandbox = sandbox;
        this.folder = folder;
        this.canConvert = canConvert;
    }

    /** The same with another end. */
    public CompilerCheck endingAfter(int seconds) {
        return new CompilerCheck(sandbox, folder, canConvert, seconds);
    }

    /**
     * Something that a compiler says.
     *
     * @param at file and line; empty where it names none
     * @param what in its own words
     * @param with parameters with which it says so; empty for the defaults
     */
    public record Said(boolean isError, String at, String what, String with) {}

    /**
     * @param tools what was run
     * @param sets how many sets of parameters were tried
     */
    public record Outcome(List<String> tools, int sets, List<Said> said) {}

    /**
     * @param block one whose description has nothing wrong
     * @param common modules of the library that it may use
     * @throws BenchException when the compilers do not come to an end, or look at another block just now
     */
    public Outcome of(OwnBlock block, HardwareSources common) throws InterruptedException {
        List<CompiledSet> sets = CompiledSet.of(block);
        boolean isVhdl = block.hardware().keySet().stream().anyMatch(HdlReader::isVhdl);
        Set<String> tools = new LinkedHashSet<>();
        Map<String, Said> said = new TreeMap<>();
        if (isVhdl && !canConvert) {
            throw new BenchException("VHDL needs GHDL, which is not installed here");
        }
        if (!turn.tryAcquire(longestSeconds, TimeUnit.SECONDS)) {
            throw new BenchException("another block is being compiled; try again in a moment");
        }
        long end = System.nanoTime() + TimeUnit.SECONDS.toNanos(longestSeconds);
        try {
            Files.createDirectories(folder);
            for (CompiledSet set : sets) {
                for (Said each : said(block, common, set, tools, end)) {
                    // Once, with the first set in which it comes up.
                    said.putIfAbsent(each.at() + each.what(), each);
                }
            }
        } catch (IOException failure) {
            throw new UncheckedIOException(failure);
        } finally {
            turn.release();
        }
        return new Outcome(
                List.copyOf(tools), sets.size(), said.values().stream().limit(MOST).toList());
    }

    private List<Said> said(
            OwnBlock block, HardwareSources common, CompiledSet set, Set<String> tools, long end)
            throws IOException, InterruptedException {
        Path work = Files.createTempDirectory(folder, "check");
        try {
            SortedMap<String, String> files = new TreeMap<>(common.common());
            files.putAll(block.hardware());
            for (Map.Entry<String, String> each : files.entrySet()) {
                Files.writeString(work.resolve(each.getKey()), each.getValue());
            }
            Folders.open(work);
            List<Said> all = new ArrayList<>();
            for (VhdlEntity entity : set.entities()) {
                tools.add("GHDL");
                SandboxedTool.Ended ended =
                        run(end, work, List.of("/bin/sh", "-c", entity.command("", "")));
                all.addAll(read(ended, OF_GHDL, set, block));
                if (ended.status() != 0) {
                    return all;
                }
            }
            tools.add("Verilator");
            SandboxedTool.Ended ended = run(end, work, verilator(block, set));
            all.addAll(read(ended, OF_VERILATOR, set, block));
            return all;
        } finally {
            Folders.remove(work);
        }
    }

    private SandboxedTool.Ended run(long end, Path work, List<String> command)
            throws IOException, InterruptedException {
        int seconds = (int) Math.max(1, (end - System.nanoTime()) / 1_000_000_000);
        Optional<SandboxedTool.Ended> ended =
                new SandboxedTool(sandbox, folder).run(work, command, seconds);
        return ended.orElseThrow(
                () ->
                        new BenchException(
                                "the compilers do not come to an end in %s s"
                                        .formatted(longestSeconds)));
    }

    private static List<String> verilator(OwnBlock block, CompiledSet set) {
        List<String> command = new ArrayList<>(List.of("verilator", "--lint-only", "-Wall"));
        command.addAll(
                List.of("-Wno-fatal", "-Wno-style", "-Wno-TIMESCALEMOD", "-Wno-PINCONNECTEMPTY"));
        command.addAll(List.of("--bbox-sys", "--no-timing", "-I/work", "-y", "/work"));
        command.addAll(List.of("--top-module", block.type().hardware().module()));
        set.parameters().forEach((name, value) -> command.add("-G%s=%s".formatted(name, value)));
        block.hardware().keySet().stream()
                .filter(file -> !file.endsWith("h") && !HdlReader.isVhdl(file))
                .forEach(command::add);
        set.entities().forEach(entity -> command.add(entity.converted()));
        return command;
    }

    /** Lines about files of the block; what is said of files that were made from them counts when it is an error. */
    private static List<Said> read(
            SandboxedTool.Ended ended, Pattern form, CompiledSet set, OwnBlock block) {
        List<Said> all = new ArrayList<>();
        for (String line : ended.said().lines().limit(10_000).toList()) {
            Matcher match = form.matcher(line.replace("/work/", ""));
            if (!match.matches()) {
                continue;
            }
            boolean isOfGhdl = form == OF_GHDL;
            String file = match.group(isOfGhdl ? 1 : 3);
            String number = match.group(isOfGhdl ? 2 : 4);
            String grade = match.group(isOfGhdl ? 3 : 1);
            boolean isError = grade == null ? ended.status() != 0 : grade.equalsIgnoreCase("error");
            if ((isError || block.hardware().containsKey(file)) && !"note".equals(grade)) {
                String what = match.group(isOfGhdl ? 4 : 5);
                String code = isOfGhdl ? null : match.group(2);
                all.add(
                        new Said(
                                isError,
                                file + ":" + number,
                                code == null
                                        ? VerilatorWords.explained(what)
                                        : "%s (%s)".formatted(what, code),
                                set.text()));
            }
        }
        if (ended.status() != 0 && all.stream().noneMatch(Said::isError)) {
            String what =
                    ended.said()
                            .lines()
                            .map(ERROR::matcher)
                            .filter(Matcher::matches)
                            .map(found -> found.group(1).replace("/work/", ""))
                            .findFirst()
                            .orElseGet(() -> ends(ended));
            all.add(new Said(true, "", what, set.text()));
        }
        return all;
    }

    /** A compiler that fails without a reason has most likely reached one of its limits. */
    private static String ends(SandboxedTool.Ended ended) {
        String last =
                ended.said().lines().filter(line -> !line.isBlank()).reduce("", (one, two) -> two);
        return "the compiler ends with status %s, perhaps for want of memory%s"
                .formatted(ended.status(), last.isEmpty() ? "" : ": " + last.strip());
    }
}
