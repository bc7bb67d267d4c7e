package polymetron.bench.mutant;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import polymetron.bench.foreign.HardwareFault;
import polymetron.outside.Tool;

/**
 * Hardware that is wrong in one place: yosys changes a module in one place after the other (mutate). All changes are built into
 * one simulation, each behind the number that turns it on.
 */
public final class Mutants {
    /** A signal of both that is not proved to be the same, without its bit. */
    private static final Pattern UNPROVEN =
            Pattern.compile("Unproven \\$equiv \\S+: \\\\(\\S+)_gold\\b");

    private static final String PROVEN = "Equivalence successfully proven!";
    private static final String PROOF_SECONDS = "240";

    private final Path hdl;
    private final List<String> changes;

    private Mutants(Path hdl, List<String> changes) {
        this.hdl = hdl;
        this.changes = List.copyOf(changes);
    }

    /**
     * Puts all changes into the file of a module, in a folder with all files that it needs. A simulation turns one on with {@code
     * +MUTANT=n}, from 1 on; 0 is none of them.
     *
     * @param parameters those that the module is changed for; with others it stays as it is
     */
    public static Mutants put(
            Path hdl, String module, Map<String, Long> parameters, int count, int seed)
            throws IOException {
        String set =
                parameters.entrySet().stream()
                        .map(each -> " -chparam %s %d".formatted(each.getKey(), each.getValue()))
                        .collect(Collectors.joining());
        yosys(
                hdl,
                ("read_verilog polymetron_*.v; hierarchy -top %s%s; proc; setattr -mod -set"
                     + " keep_hierarchy 1 polymetron_converter; flatten; opt_clean; rename -top"
                     + " mutated; write_ilang mutated.il; mutate -list %d -seed %d -o changes.txt")
                        .formatted(module, set, count, seed));
        List<String> changes = Files.readAllLines(hdl.resolve("changes.txt"));
        StringBuilder script = new StringBuilder("read_ilang mutated.il\n");
        for (int at = 0; at < changes.size(); at++) {
            script.append(
                    changes.get(at)
                            .replaceFirst(
                                    "mutate ", "mutate -ctrl mutant 16 %d ".formatted(at + 1)));
            script.append('\n');
        }
        Files.writeString(
                hdl.resolve("mutate.ys"),
                script + "clean\nselect mutated\nwrite_verilog -noattr -selected mutated.v\n");
        Tool.run(hdl, "yosys", "-q", "-s", "mutate.ys");
        Path file = hdl.resolve(module + ".v");
        String original = Files.readString(file);
        Files.writeString(
                file,
                wrapped(original, module, parameters)
                        + original.replaceFirst("module " + module, "module original_of_mutated")
                        + Files.readString(hdl.resolve("mutated.v")));
        return new Mutants(hdl, changes);
    }

    /** How many there are. */
    public int count() {
        return changes.size();
    }

    /** File and line of a change, the signal where it has a name, and what it does, for a person. */
    public String place(int number) {
        HardwareFault fault = HardwareFault.of(changes.get(number - 1));
        return fault.at() + ": " + fault.what();
    }

    /**
     * Whether yosys proves that a change makes no difference at any output, whatever comes in (equiv_induct); false where it
     * cannot say. Registers inside that are not proved the same are left out the second time: they may differ where nothing of
     * them comes out.
     */
    public boolean isEquivalent(int number) {
        String first = proof(number, "");
        return first.contains(PROVEN)
                || UNPROVEN.matcher(first).find()
                        && proof(number, unproven(first)).contains(PROVEN);
    }

    /** Names of registers, a line each. */
    private static String unproven(String proof) {
        return UNPROVEN.matcher(proof)
                .results()
                .map(each -> each.group(1))
                .distinct()
                .collect(Collectors.joining("\n"));
    }

    private String proof(int number, String without) {
        String change = changes.get(number - 1).replace("-module mutated", "-module gate");
        Tool.write(hdl, "without.txt", without.getBytes());
        return Tool.tryRun(
                        hdl,
                        "timeout",
                        PROOF_SECONDS,
                        "yosys",
                        "-p",
                        ("read_ilang mutated.il; copy mutated gate; %s; rename mutated gold;"
                             + " setattr -mod -unset keep_hierarchy polymetron_converter; setattr"
                             + " -mod -unset top gold gate; flatten; memory_map; simplemap; opt"
                             + " -purge; equiv_make -blacklist without.txt gold gate both;"
                             + " hierarchy -top both; opt_clean -purge; equiv_simple -seq 1;"
                             + " equiv_induct -seq 2; equiv_status")
                                .formatted(change))
                .output();
    }

    private static void yosys(Path hdl, String commands) {
        Tool.run(hdl, "yosys", "-q", "-p", commands);
    }

    /**
     * A module with the ports and parameters of the original, with the changed one inside where the parameters are those that it
     * was made for, and the original elsewhere.
     */
    private static String wrapped(String original, String module, Map<String, Long> parameters) {
        // The list of ports ends where the first line has nothing but its end.
        String header =
                original.substring(
                        original.indexOf("module " + module), original.indexOf("\n);") + 3);
        List<String> ports = new ArrayList<>();
        for (String line : header.lines().toList()) {
            String port = line.strip().replaceFirst(",$", "");
            if (port.startsWith("input ") || port.startsWith("output ")) {
                ports.add(port.substring(port.lastIndexOf(' ') + 1));
            }
        }
        String connected =
                ports.stream()
                        .map(each -> ".%1$s(%1$s)".formatted(each))
                        .collect(Collectors.joining(", "));
        String given =
                parameters.keySet().stream()
                        .map(each -> ".%1$s(%1$s)".formatted(each))
                        .collect(Collectors.joining(", "));
        String same =
                parameters.entrySet().stream()
                        .map(each -> each.getKey() + " == " + each.getValue())
                        .collect(Collectors.joining(" && "));
        return """
        %s
        reg [15:0] mutant = 16'd0;
        initial if ($value$plusargs("MUTANT=%%d", mutant)) ;
        generate
        if (%s) begin : with_changes
            mutated mutated (.mutant(mutant), %s);
        end
        else begin : without
            original_of_mutated #(%s) original (%s);
        end
        endgenerate
        endmodule
        """
                .formatted(
                        header.replace("output reg ", "output wire "),
                        same.isEmpty() ? "1" : same,
                        connected,
                        given,
                        connected);
    }
}
