package polymetron.bench.foreign;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.Semaphore;
import java.util.concurrent.TimeUnit;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import polymetron.bench.machine.BenchException;
import polymetron.hdl.HdlModule;
import polymetron.hdl.HdlReader;
import polymetron.library.HardwareSources;
import polymetron.ownblock.OwnBlock;

/**
 * Runs the tests of a block in Verilator, then plants faults into its module one at a time, and looks which of them a test notices. A
 * test fails by {@code $error}, {@code $fatal} or {@code $stop} (IEEE 1800-2017, 20.2 and 20.10), or by not coming to an end; what it
 * only prints is not looked at.
 */
public final class BlockTests {
    /** Seconds that a test may take. */
    public static final int LONGEST_TEST = 20;

    private static final int FAULTS = 40;

    /** Seconds for which faults are tried; how many that were is said. */
    private static final int LONGEST_TRYING = 120;

    private static final int LONGEST_PROVING = 60;
    private static final int MOST_SAID = 20;
    private static final String OF_SIMULATOR = "- \\S+:\\d+: Verilog \\$finish|Aborting\\.\\.\\.";

    private final Sandbox sandbox;
    private final Path folder;
    private final boolean canPlant;
    private final Semaphore turn = new Semaphore(1);

    /**
     * @param folder for what is built
     * @param canPlant whether yosys is there
     */
    BlockTests(Sandbox sandbox, Path folder, boolean canPlant) {
        this.sandbox = sandbox;
        this.folder = folder;
        this.canPlant = canPlant;
    }

    /**
     * How a test went with the block as it is.
     *
     * @param said its last lines
     */
    public record Ran(String name, boolean passes, String said) {}

    /** A fault that no test noticed, and that may make a difference. */
    public record Unnoticed(String at, String what) {
        private String file() {
            return at.replaceFirst(":\\d+$", "");
        }

        private int line() {
            return at.matches(".*:\\d{1,9}") ? Integer.parseInt(at.replaceFirst(".*:", "")) : 0;
        }
    }

    /**
     * @param tests in the order of their names
     * @param tried faults that were planted
     * @param noticed those with which a test failed
     * @param harmless those that are proved to make no difference
     * @param unnoticed the others
     * @param notPlanted why no faults were planted; empty where they were
     */
    public record Outcome(
            List<Ran> tests,
            int tried,
            int noticed,
            int harmless,
            List<Unnoticed> unnoticed,
            String notPlanted) {
        private static Outcome without(List<Ran> tests, String why) {
            return new Outcome(tests, 0, 0, 0, List.of(), why);
        }
    }

    /**
     * @param block one whose description has nothing wrong, with HDL and tests
     * @param common modules of the library that it may use
     * @throws BenchException when a test cannot be built; the message says why
     */
    public Outcome of(OwnBlock block, HardwareSources common) throws InterruptedException {
        if (block.hardware().keySet().stream().anyMatch(HdlReader::isVhdl)) {
            throw new BenchException("tests run with Verilog and SystemVerilog, not with VHDL");
        }
        if (!turn.tryAcquire(LONGEST_TEST, TimeUnit.SECONDS)) {
            throw new BenchException("another block is being tested; try again in a moment");
        }
        try {
            Files.createDirectories(folder);
            List<Ran> ran = new ArrayList<>();
            int longestMillis = 0;
            for (String name : block.tests().keySet()) {
                try (BuiltTest test = new BuiltTest(sandbox, folder, name, block, common)) {
                    test.compile(List.of());
                    long begin = System.nanoTime();
                    ran.add(ran(name, test.run(0, LONGEST_TEST)));
                    long took = TimeUnit.NANOSECONDS.toMillis(System.nanoTime() - begin);
                    longestMillis = (int) Math.max(longestMillis, took);
                }
            }
            if (!canPlant) {
                return Outcome.without(ran, "yosys is not installed here");
            }
            return ran.stream().allMatch(Ran::passes)
                    ? withFaults(block, common, ran, longestMillis)
                    : Outcome.without(ran, "the tests have to pass first");
        } catch (IOException failure) {
            throw new UncheckedIOException(failure);
        } finally {
            turn.release();
        }
    }

    private static Ran ran(String name, Optional<SandboxedTool.Ended> ended) {
        if (ended.isEmpty()) {
            return new Ran(name, false, "it does not end in %s s".formatted(LONGEST_TEST));
        }
        List<String> lines =
                ended.get()
                        .said()
                        .replace("/work/", "")
                        .lines()
                        .filter(line -> !line.matches(OF_SIMULATOR))
                        .toList();
        return new Ran(
                name,
                ended.get().status() == 0,
                lines.stream()
                        .skip(Math.max(0, lines.size() - MOST_SAID))
                        .collect(Collectors.joining("\n")));
    }

    private Outcome withFaults(
            OwnBlock block, HardwareSources common, List<Ran> ran, int longestMillis)
            throws IOException, InterruptedException {
        List<BuiltTest> built = new ArrayList<>();
        try {
            HdlModule module = module(block);
            List<BuiltTest> used = new ArrayList<>();
            PlantedFaults planted = null;
            for (String name : block.tests().keySet()) {
                BuiltTest test = new BuiltTest(sandbox, folder, name, block, common);
                built.add(test);
                planted = PlantedFaults.plant(test, block.hardware(), module, FAULTS);
                test.compile(List.of(PlantedFaults.FILE));
                if (planted.isUsed()) {
                    used.add(test);
                }
            }
            if (used.isEmpty()) {
                return Outcome.without(ran, "no test has module %s in it".formatted(module.name()));
            }
            // One that takes many times as long hangs.
            int seconds = Math.min(LONGEST_TEST, 2 + 5 * longestMillis / 1000);
            return judged(ran, used, planted, seconds);
        } catch (BenchException cannot) {
            return Outcome.without(ran, cannot.getMessage());
        } finally {
            for (BuiltTest each : built) {
                each.close();
            }
        }
    }

    private static Outcome judged(
            List<Ran> ran, List<BuiltTest> tests, PlantedFaults planted, int seconds)
            throws IOException, InterruptedException {
        int tried = 0;
        List<Integer> left = new ArrayList<>();
        long end = System.nanoTime() + TimeUnit.SECONDS.toNanos(LONGEST_TRYING);
        while (tried < planted.faults().size() && System.nanoTime() < end) {
            tried++;
            if (!isNoticed(tests, tried, seconds)) {
                left.add(tried);
            }
        }
        int harmless = 0;
        List<Unnoticed> unnoticed = new ArrayList<>();
        end = System.nanoTime() + TimeUnit.SECONDS.toNanos(LONGEST_PROVING);
        for (int number : left) {
            if (System.nanoTime() < end && planted.isHarmless(number)) {
                harmless++;
            } else {
                HardwareFault fault = planted.faults().get(number - 1);
                unnoticed.add(new Unnoticed(fault.at(), fault.what()));
            }
        }
        unnoticed.sort(Comparator.comparing(Unnoticed::file).thenComparing(Unnoticed::line));
        return new Outcome(ran, tried, tried - left.size(), harmless, unnoticed, "");
    }

    private static boolean isNoticed(List<BuiltTest> tests, int fault, int seconds)
            throws IOException, InterruptedException {
        for (BuiltTest each : tests) {
            if (each.run(fault, seconds).filter(ended -> ended.status() == 0).isEmpty()) {
                return true;
            }
        }
        return false;
    }

    /** The first module of the block that a test names: not the one that only fits it to the definition. */
    private static HdlModule module(OwnBlock block) {
        return HdlReader.read(block.hardware()).modules().stream()
                .filter(each -> block.tests().values().stream().anyMatch(text -> names(text, each)))
                .findFirst()
                .orElseThrow(() -> new BenchException("no test has a module of the block in it"));
    }

    private static boolean names(String text, HdlModule module) {
        return Pattern.compile("\\b%s\\b".formatted(Pattern.quote(module.name())))
                .matcher(text)
                .find();
    }
}
