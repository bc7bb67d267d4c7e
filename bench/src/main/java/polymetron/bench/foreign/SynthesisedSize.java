package polymetron.bench.foreign;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.SortedMap;
import java.util.TreeMap;
import java.util.concurrent.Semaphore;
import java.util.concurrent.TimeUnit;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import polymetron.bench.machine.BenchException;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.SizedInterface;
import polymetron.elaborate.SizedResources;
import polymetron.hdl.HdlReader;
import polymetron.library.Library;
import polymetron.output.hardware.BlockHarness;
import polymetron.output.hardware.VhdlEntity;
import polymetron.ownblock.CompiledSet;
import polymetron.ownblock.OwnBlock;

/**
 * What yosys makes of a block with the defaults of its parameters, for lookup tables of six inputs and without carry chains, beside
 * what its definition says and fits count with. Memories and multipliers of the device are counted by themselves.
 */
public final class SynthesisedSize {
    private static final int LONGEST_SECONDS = 120;

    private static final Pattern TABLES = Pattern.compile("\\$lut\\s+(\\d+)");
    private static final Pattern FLIP_FLOPS = Pattern.compile("\\$_\\w*(?:DFF|SR)\\w*_\\s+(\\d+)");
    private static final Pattern MULTIPLIERS = Pattern.compile("device_multiplier\\s+(\\d+)");
    private static final Pattern MEMORY = Pattern.compile("Number of memory bits:\\s+(\\d+)");
    private static final Pattern ERROR = Pattern.compile("(?m)^.*\\bERROR: *(.*)$");
    private static final String STATISTICS = "Printing statistics";

    private static final String SCRIPT =
            "read_verilog -sv -I. FILES; PARAMETERS hierarchy -check -top TOP -libdir .; proc;"
                + " flatten; opt; stat; wreduce; chtype -set device_multiplier t:$mul; synth -run"
                + " coarse:fine; opt -fast -full; techmap; opt -fast; abc -lut 6; opt_clean; stat";

    private final Sandbox sandbox;
    private final Path folder;
    private final boolean canConvert;
    private final Semaphore turn = new Semaphore(1);

    SynthesisedSize(Sandbox sandbox, Path folder, boolean canConvert) {
        this.sandbox = sandbox;
        this.folder = folder;
        this.canConvert = canConvert;
    }

    /** How much of a device a block takes. */
    public record Size(long lookupTables, long flipFlops, long multipliers) {}

    /**
     * @param made what synthesis makes
     * @param said what the definition says
     * @param memoryBits bits of memories, which are blocks or lookup tables of the device
     * @param withRegisters whether registers and the end of the bus are in it, as they are in what the definition says; not where the
     *     block cannot stand alone, so that only its own HDL was made
     */
    public record Outcome(Size made, Size said, long memoryBits, boolean withRegisters) {}

    /**
     * @param block one whose description has nothing wrong, with HDL
     * @param library where it finds what it uses; an earlier state of the block in it does not count
     * @throws BenchException when the HDL cannot be made into hardware; the message says why
     */
    public Outcome of(OwnBlock block, Library library) throws InterruptedException {
        ElaboratedPlatform platform = AloneOnBoard.of(block, library);
        ElaboratedBlock own = platform.block(AloneOnBoard.NAME).orElseThrow();
        Optional<BlockHarness> harness =
                own.shape().busInterfaces().stream()
                        .filter(SizedInterface::isTarget)
                        .findFirst()
                        .flatMap(form -> BlockHarness.of(platform, own, form))
                        // Buffers of streams are not the block's.
                        .filter(each -> each.streams().isEmpty());
        if (!turn.tryAcquire(LONGEST_SECONDS, TimeUnit.SECONDS)) {
            throw new BenchException("another block is being synthesised; try again in a moment");
        }
        try {
            Files.createDirectories(folder);
            String report = harness.isPresent() ? whole(harness.get()) : alone(block, library);
            String last = report.substring(report.lastIndexOf(STATISTICS));
            Size made = new Size(sum(TABLES, last), sum(FLIP_FLOPS, last), sum(MULTIPLIERS, last));
            return new Outcome(made, said(own), sum(MEMORY, firstOf(report)), harness.isPresent());
        } catch (IOException failure) {
            throw new UncheckedIOException(failure);
        } finally {
            turn.release();
        }
    }

    private static String firstOf(String report) {
        int from = report.indexOf(STATISTICS);
        return report.substring(from, report.indexOf(STATISTICS, from + 1));
    }

    private static long sum(Pattern pattern, String text) {
        return pattern.matcher(text)
                .results()
                .mapToLong(found -> Long.parseLong(found.group(1)))
                .sum();
    }

    private static Size said(ElaboratedBlock block) {
        SizedResources says = block.shape().resources();
        return new Size(says.lookupTables(), says.flipFlops(), says.multipliers());
    }

    private String whole(BlockHarness harness) throws IOException, InterruptedException {
        return run(harness.files(), "harness.v", harness.entities(), "harness_block", Map.of());
    }

    private String alone(OwnBlock block, Library library) throws IOException, InterruptedException {
        SortedMap<String, String> files = new TreeMap<>(library.hardware().common());
        files.putAll(block.hardware());
        CompiledSet defaults = CompiledSet.of(block).getFirst();
        return run(
                files,
                "",
                defaults.entities(),
                block.type().hardware().module(),
                defaults.parameters());
    }

    /**
     * @param first the file with the top module; empty where that is one of the block
     */
    private String run(
            SortedMap<String, String> files,
            String first,
            List<VhdlEntity> entities,
            String top,
            Map<String, String> parameters)
            throws IOException, InterruptedException {
        if (!entities.isEmpty() && !canConvert) {
            throw new BenchException("VHDL needs GHDL, which is not installed here");
        }
        Path work = Files.createTempDirectory(folder, "size");
        try {
            for (Map.Entry<String, String> each : files.entrySet()) {
                Files.writeString(work.resolve(each.getKey()), each.getValue());
            }
            Folders.open(work);
            for (VhdlEntity entity : entities) {
                tool(work, List.of("/bin/sh", "-c", entity.command("", "")));
            }
            // Common modules are found by their names, each in a file of its own.
            List<String> read = new ArrayList<>();
            files.keySet().stream()
                    .filter(file -> file.equals(first) || !file.startsWith("polymetron_"))
                    .filter(file -> !file.endsWith("h") && !HdlReader.isVhdl(file))
                    .forEach(read::add);
            entities.forEach(entity -> read.add(entity.converted()));
            String set =
                    parameters.entrySet().stream()
                            .map(
                                    each ->
                                            "chparam -set %s %s %s;"
                                                    .formatted(each.getKey(), each.getValue(), top))
                            .collect(Collectors.joining(" "));
            Files.writeString(
                    work.resolve("size.ys"),
                    SCRIPT.replace("FILES", String.join(" ", read))
                            .replace("PARAMETERS", set)
                            .replace("TOP", top)
                            .replace("; ", "\n"));
            return tool(work, List.of("yosys", "-s", "size.ys"));
        } finally {
            Folders.remove(work);
        }
    }

    private String tool(Path work, List<String> command) throws IOException, InterruptedException {
        SandboxedTool.Ended ended =
                new SandboxedTool(sandbox, folder)
                        .run(work, command, LONGEST_SECONDS)
                        .orElseThrow(
                                () ->
                                        new BenchException(
                                                "synthesis does not come to an end in %s s"
                                                        .formatted(LONGEST_SECONDS)));
        if (ended.status() != 0 || command.contains("size.ys") && !isWhole(ended.said())) {
            String why =
                    ERROR.matcher(ended.said())
                            .results()
                            .findFirst()
                            .map(found -> found.group().strip())
                            .orElse("perhaps for want of memory");
            throw new BenchException("synthesis cannot read the HDL: " + why);
        }
        return ended.said();
    }

    /** What is said has a limit; figures are at its end. */
    private static boolean isWhole(String said) {
        return said.indexOf(STATISTICS) != said.lastIndexOf(STATISTICS);
    }
}
