package polymetron.bench.foreign;

import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import java.util.SortedMap;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import polymetron.bench.machine.BenchException;
import polymetron.hdl.HdlModule;
import polymetron.hdl.HdlParameter;
import polymetron.hdl.HdlReader;

/**
 * A module that can be wrong in one place of many. Yosys lists places, spread over the module and the same each time; all are built
 * into one module, with everything below it in it, each behind the number that turns it on ({@code +FAULT=n}). It has the name and
 * the ports of the original, and the parameters at their defaults.
 */
final class PlantedFaults {
    /** With this number the module says instead that it is there. */
    private static final int IS_THERE = 65_535;

    private static final String SAYS = "polymetron: ";

    /** The file that the module is in afterwards. */
    static final String FILE = "polymetron_planted.v";

    private static final String SWITCH = "polymetron_fault";
    private static final String MODULE = "polymetron_faulty";
    private static final int LONGEST_SECONDS = 60;
    private static final int PROOF_SECONDS = 15;
    private static final Pattern ERROR = Pattern.compile("(?m)^.*\\bERROR: *(.*)$");

    private final BuiltTest test;
    private final List<HardwareFault> faults;

    private PlantedFaults(BuiltTest test, List<HardwareFault> faults) {
        this.test = test;
        this.faults = faults;
    }

    /**
     * Puts faults into the module, in the folder of a test that is not compiled yet.
     *
     * @param files those of the block
     * @param module the one that is changed
     * @param count how many faults
     * @throws BenchException where yosys cannot read the files
     */
    static PlantedFaults plant(
            BuiltTest test, SortedMap<String, String> files, HdlModule module, int count)
            throws IOException, InterruptedException {
        Path work = test.work();
        String read =
                files.keySet().stream()
                        .filter(file -> !file.endsWith("h") && !HdlReader.isVhdl(file))
                        .collect(Collectors.joining(" "));
        yosys(
                test,
                """
                read_verilog -sv -I. %s
                hierarchy -check -top %s -libdir .
                proc
                flatten
                wreduce
                opt_clean
                rename -top %s
                write_ilang faulty.il
                mutate -list %s -seed 1 -o faults.txt
                """
                        .formatted(read, module.name(), MODULE, count));
        List<HardwareFault> faults =
                Folders.read(work.resolve("faults.txt")).lines().map(HardwareFault::of).toList();
        if (faults.isEmpty()) {
            throw new BenchException(
                    "there is nothing in module %s yet that could be wrong"
                            .formatted(module.name()));
        }
        StringBuilder script = new StringBuilder("read_ilang faulty.il\n");
        for (int at = 0; at < faults.size(); at++) {
            String on = "mutate -ctrl %s 16 %s ".formatted(SWITCH, at + 1);
            script.append(faults.get(at).command().replaceFirst("mutate ", on)).append('\n');
        }
        yosys(
                test,
                script
                        + "clean\nselect %s\nwrite_verilog -noattr -selected faulty.v\n"
                                .formatted(MODULE));
        Folders.write(
                work.resolve(module.file()),
                withoutModule(files.get(module.file()), module.name()));
        Folders.write(
                work.resolve(FILE), inPlaceOf(module, Folders.read(work.resolve("faulty.v"))));
        return new PlantedFaults(test, faults);
    }

    List<HardwareFault> faults() {
        return faults;
    }

    /**
     * Whether the module is in the test.
     *
     * @throws BenchException where it has other parameters there than its defaults
     */
    boolean isUsed() throws IOException, InterruptedException {
        String said =
                test.run(IS_THERE, BlockTests.LONGEST_TEST)
                        .map(SandboxedTool.Ended::said)
                        .orElse("");
        List<String> others =
                said.lines().filter(line -> line.matches(SAYS + "\\w+ is -?\\d+")).toList();
        if (!others.isEmpty()) {
            throw new BenchException(
                    "%s: %s; faults are planted with the defaults of the parameters"
                            .formatted(test.name(), others.getFirst().replace(SAYS, "")));
        }
        return said.contains(SAYS + "is there");
    }

    /** The original goes on under another name: other modules of its file stay. */
    private static String withoutModule(String text, String module) {
        String name = Pattern.quote(module);
        return text.replaceAll(
                        "\\b(module|macromodule)(\\s+(?:automatic\\s+|static\\s+)?)" + name + "\\b",
                        "$1$2original_of_" + Matcher.quoteReplacement(module))
                .replaceAll(
                        "\\bendmodule(\\s*:\\s*)" + name + "\\b",
                        "endmodule$1original_of_" + Matcher.quoteReplacement(module));
    }

    private static String inPlaceOf(HdlModule module, String made) {
        StringBuilder own = new StringBuilder();
        StringBuilder others = new StringBuilder();
        for (HdlParameter each : module.parameters()) {
            if (!each.isLocal() && each.value() != null) {
                own.append("  parameter %s = %s;\n".formatted(each.name(), each.value()));
                others.append(
                        "      if (%1$s != (%2$s)) $display(\"polymetron: %1$s is %%0d\", %1$s);\n"
                                .formatted(each.name(), each.value()));
            }
        }
        String start =
                """
                  reg [15:0] %1$s = 16'd0;
                  initial begin
                    if ($value$plusargs("FAULT=%%d", %1$s)) begin end
                    if (%1$s == 16'd%2$s) begin
                      $display("polymetron: is there");
                %3$s      $finish;
                    end
                  end
                """
                        .formatted(SWITCH, IS_THERE, others);
        int begin = made.indexOf("module " + MODULE + "(");
        int end = made.indexOf(");", begin);
        String ports =
                Stream.of(made.substring(made.indexOf('(', begin) + 1, end).split(", "))
                        .filter(each -> !each.strip().equals(SWITCH))
                        .collect(Collectors.joining(", "));
        return "module %s(%s);\n%s".formatted(module.name(), ports, own)
                + made.substring(end + 2)
                        .replaceFirst(" *input \\[15:0\\] %s;\n".formatted(SWITCH), "")
                        .replaceFirst(
                                " *wire \\[15:0\\] %s;\n".formatted(SWITCH),
                                Matcher.quoteReplacement(start));
    }

    /**
     * Whether yosys proves that a fault makes no difference at any output, whatever comes in (equiv_induct); false where it cannot
     * say in some seconds.
     */
    boolean isHarmless(int number) throws IOException, InterruptedException {
        String change =
                faults.get(number - 1).command().replace("-module " + MODULE, "-module gate");
        Folders.write(
                test.work().resolve("proof.ys"),
                """
                read_ilang faulty.il
                copy %1$s gate
                %2$s
                rename %1$s gold
                setattr -mod -unset top gold gate
                memory_map
                simplemap
                opt -purge
                equiv_make gold gate both
                hierarchy -top both
                opt_clean -purge
                equiv_simple -seq 1
                equiv_induct -seq 4
                equiv_status -assert
                """
                        .formatted(MODULE, change));
        return test.tool()
                .run(test.work(), List.of("yosys", "-q", "-s", "proof.ys"), PROOF_SECONDS)
                .filter(ended -> ended.status() == 0)
                .isPresent();
    }

    private static void yosys(BuiltTest test, String script)
            throws IOException, InterruptedException {
        Folders.write(test.work().resolve("plant.ys"), script);
        SandboxedTool.Ended ended =
                test.tool()
                        .run(test.work(), List.of("yosys", "-s", "plant.ys"), LONGEST_SECONDS)
                        .orElseThrow(
                                () ->
                                        new BenchException(
                                                "yosys does not come to an end in %s s"
                                                        .formatted(LONGEST_SECONDS)));
        if (ended.status() != 0) {
            throw new BenchException(
                    "yosys cannot read the HDL: "
                            + ERROR.matcher(ended.said())
                                    .results()
                                    .findFirst()
                                    .map(found -> found.group(1).strip())
                                    .orElse("perhaps for want of memory"));
        }
    }
}
