package polymetron.bench.mutant;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.regex.Pattern;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.fit.Amount;
import polymetron.fit.DeviceFit;
import polymetron.library.Evidence;
import polymetron.outside.Tool;

/** What yosys makes of a block of generated hardware, for tables of six inputs; memories of the device are left out. */
public final class MeasuredSize {
    private static final Pattern TABLES = Pattern.compile("\\$lut\\s+(\\d+)");
    private static final Pattern FLIP_FLOPS = Pattern.compile("\\$_\\w*DFF\\w*_\\s+(\\d+)");

    private MeasuredSize() {}

    /** Beside what the platform's fit estimates; null where the block is in no module of its own. */
    public static Evidence.Size of(ElaboratedPlatform platform, ElaboratedBlock block, Path hdl)
            throws IOException {
        List<String> sources = Files.readAllLines(hdl.resolve("files.f"));
        String top = sources.getLast().replaceFirst("\\.v$", "");
        String module = top + "_" + block.name();
        if (!sources.contains(module + ".v")) {
            return null;
        }
        String said =
                Tool.run(
                        hdl,
                        "yosys",
                        "-p",
                        ("read_verilog %s; hierarchy -top %s; proc; flatten; opt; wreduce; chtype"
                             + " -set device_multiplier t:$mul; synth -run coarse:fine; opt -fast"
                             + " -full; techmap; opt -fast; abc -lut 6; opt_clean; stat")
                                .formatted(String.join(" ", sources), module));
        String statistics = said.substring(said.lastIndexOf("Printing statistics"));
        DeviceFit fit = DeviceFit.of(platform).orElseThrow();
        return new Evidence.Size(
                sum(TABLES, statistics),
                sum(FLIP_FLOPS, statistics),
                estimated(fit, "lookup tables", block.name()),
                estimated(fit, "flip-flops", block.name()),
                block.block().parameters().entrySet().stream()
                        .map(each -> each.getKey() + "=" + each.getValue())
                        .sorted()
                        .toList());
    }

    private static long estimated(DeviceFit fit, String what, String block) {
        return fit.amount(what).shares().stream()
                .filter(share -> share.who().equals(block))
                .mapToLong(Amount.Share::count)
                .sum();
    }

    private static long sum(Pattern pattern, String text) {
        return pattern.matcher(text)
                .results()
                .mapToLong(found -> Long.parseLong(found.group(1)))
                .sum();
    }
}
