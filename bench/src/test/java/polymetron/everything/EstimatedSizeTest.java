package polymetron.everything;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.LongStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import polymetron.Shipped;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.fit.Amount;
import polymetron.fit.DeviceFit;
import polymetron.output.hardware.Hardware;
import polymetron.outside.Tool;
import polymetron.platform.Platform;

/**
 * Estimated lookup tables and flip-flops beside what yosys makes of the generated hardware, for tables of six inputs and without
 * carry chains: memories and multipliers of the device are left out.
 */
final class EstimatedSizeTest {
    private static final long SEEDS = Long.getLong("polymetron.sizes", 1);

    /** One of so many modules in every run; all by hand with -Dpolymetron.sizes.every=1. */
    private static final int EVERY = Integer.getInteger("polymetron.sizes.every", 4);

    private static final Pattern TABLES = Pattern.compile("\\$lut\\s+(\\d+)");
    private static final Pattern FLIP_FLOPS = Pattern.compile("\\$_\\w*DFF\\w*_\\s+(\\d+)");

    /** Smaller ones may be off by more than the stated part: a register more or less is much of them. */
    private static final long SMALL = 60;

    private static final long LARGE = 200;
    private static final long MOST_COMPARED = 3_000;

    @TempDir private Path folder;

    /** Tables of six and of four inputs that the same modules take. */
    private long sixes;

    private long fours;

    @Test
    void estimatesAreAsGoodAsTheySay() throws IOException {
        List<String> all = new ArrayList<>();
        List<String> wrong = new ArrayList<>();
        for (long seed : LongStream.rangeClosed(1, SEEDS).toArray()) {
            Platform platform = RandomPlatform.built(seed).orElseThrow();
            check("platform " + seed, Shipped.elaborate(platform), all, wrong);
        }
        all.forEach(System.out::println);
        assertThat(wrong).isEmpty();
        assertThat(isNear(sixes * DeviceFit.SMALLER_TABLES / 100, fours))
                .as("%s tables of four inputs for %s of six", fours, sixes)
                .isTrue();
    }

    private void check(
            String what, ElaboratedPlatform platform, List<String> all, List<String> wrong)
            throws IOException {
        Path here = Files.createDirectories(folder.resolve(what.replace(' ', '_')));
        Hardware hardware = Hardware.of(platform);
        hardware.files().forEach(file -> Tool.write(here, file.path(), file.bytes()));
        List<String> sources = Files.readAllLines(here.resolve("hdl/files.f"));
        DeviceFit fit = DeviceFit.of(platform).orElseThrow();
        Map<String, long[]> estimated = new TreeMap<>();
        for (Amount.Share share : fit.amount("lookup tables").shares()) {
            estimated.computeIfAbsent(module(share), each -> new long[2])[0] += share.count();
        }
        for (Amount.Share share : fit.amount("flip-flops").shares()) {
            estimated.computeIfAbsent(module(share), each -> new long[2])[1] += share.count();
        }
        long[] sums = new long[4];
        int number = 0;
        for (Map.Entry<String, long[]> each : estimated.entrySet()) {
            String module = hardware.top() + "_" + each.getKey();
            if (!sources.contains(module + ".v") || number++ % EVERY != 0) {
                continue;
            }
            String said = synthesised(here.resolve("hdl"), module, sources, 6);
            long tables = sum(TABLES, said);
            long flipFlops = sum(FLIP_FLOPS, said);
            long[] guess = each.getValue();
            if (tables > LARGE && sixes < MOST_COMPARED) {
                sixes += tables;
                fours += sum(TABLES, synthesised(here.resolve("hdl"), module, sources, 4));
            }
            all.add(
                    "%s, %s: %d lookup tables estimated, %d made; %d flip-flops estimated, %d made"
                            .formatted(what, each.getKey(), guess[0], tables, guess[1], flipFlops));
            sums[0] += guess[0];
            sums[1] += tables;
            sums[2] += guess[1];
            sums[3] += flipFlops;
            if (!isNear(guess[0], tables) || !isNear(guess[1], flipFlops)) {
                wrong.add(all.getLast());
            }
        }
        all.add("%s: %s".formatted(what, java.util.Arrays.toString(sums)));
    }

    private static boolean isNear(long guess, long made) {
        return Math.abs(guess - made)
                <= Math.max(SMALL, Math.max(guess, made) * DeviceFit.LOGIC_UNCERTAINTY / 100);
    }

    private static String module(Amount.Share share) {
        if (share.who().startsWith("bus ")) {
            return share.who().substring(4) + "__bus";
        }
        if (share.who().startsWith("adapters of ")) {
            return share.who().substring(12).replace('.', '_') + "__adapter";
        }
        return share.who();
    }

    private static String synthesised(Path hdl, String module, List<String> sources, int inputs) {
        String said =
                Tool.run(
                        hdl,
                        "yosys",
                        "-p",
                        ("read_verilog %s; hierarchy -top %s; proc; flatten; opt; wreduce; select"
                             + " -set multipliers t:$mul r:Y_WIDTH>=48 %%i t:$mul c:*fir_filter*"
                             + " %%i %%u; chtype -set device_multiplier @multipliers; synth -run"
                             + " coarse:fine; opt -fast -full; techmap; opt -fast; abc -lut %s;"
                             + " opt_clean; stat")
                                .formatted(String.join(" ", sources), module, inputs));
        return said.substring(said.lastIndexOf("Printing statistics"));
    }

    private static long sum(Pattern pattern, String text) {
        Matcher matcher = pattern.matcher(text);
        return matcher.results().mapToLong(found -> Long.parseLong(found.group(1))).sum();
    }
}
