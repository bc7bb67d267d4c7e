package polymetron.ownblock;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.SortedMap;
import java.util.TreeMap;
import polymetron.hdl.HdlModule;
import polymetron.hdl.HdlParameter;
import polymetron.hdl.HdlReader;
import polymetron.hdl.HdlReading;

/**
 * A block out of Verilog and VHDL files, as browser and command line make it: the files are looked at, the module is chosen, and the roles of
 * its ports are proposed.
 *
 * @param block null where something cannot be read or is refused, which the problems say
 * @param module name of the module that it is made from; null likewise
 * @param modules all modules in the files
 * @param reasons what became of each port
 * @param problems of files that the module does not need, where there is a block all the same
 */
public record BlockFromHdl(
        OwnBlock block,
        String module,
        List<String> modules,
        List<HdlProposal.Reason> reasons,
        List<BlockProblem> problems) {
    private static final int MOST_FILES = 64;
    private static final String NAME = "[A-Za-z][A-Za-z0-9_]{0,59}\\.(s?vh?|vhdl?)";

    /**
     * @param files texts by file name
     * @param wanted name of the module; null for the one that no other uses
     * @param vendor first part of the identity
     */
    public static BlockFromHdl of(SortedMap<String, String> files, String wanted, String vendor) {
        List<BlockProblem> problems = new ArrayList<>(names(files));
        if (!problems.isEmpty()) {
            return new BlockFromHdl(null, null, List.of(), List.of(), problems);
        }
        HdlReading reading = HdlReader.read(files);
        List<BlockProblem> refused = new ArrayList<>(RefusedHdl.of(files));
        refused.addAll(VerilogWords.problems(reading));
        problems.addAll(refused);
        reading.problems()
                .forEach(
                        each ->
                                problems.add(
                                        new BlockProblem(
                                                each.place(),
                                                VerilogWords.explained(each.what()))));
        List<String> modules = reading.modules().stream().map(HdlModule::name).toList();
        Optional<HdlModule> module =
                wanted == null ? TestFiles.topBesides(files, reading) : reading.module(wanted);
        if (module.isEmpty() && problems.isEmpty()) {
            problems.add(
                    new BlockProblem(
                            "",
                            modules.isEmpty()
                                    ? "there is no module in the files"
                                    : "there is no module %s; there is %s"
                                            .formatted(wanted, String.join(", ", modules))));
        }
        if (module.isEmpty() || !refused.isEmpty()) {
            return new BlockFromHdl(null, null, modules, List.of(), problems);
        }
        for (HdlParameter each : module.get().parameters()) {
            if (each.value() == null) {
                problems.add(
                        new BlockProblem(
                                module.get().file() + ":" + each.line(),
                                "parameter %s has no default; give it one".formatted(each.name())));
                return new BlockFromHdl(null, module.get().name(), modules, List.of(), problems);
            }
        }
        try {
            SortedMap<String, String> tests = TestFiles.among(files, reading, module.get().file());
            SortedMap<String, String> rest = new TreeMap<>(files);
            rest.keySet().removeAll(tests.keySet());
            HdlProposal.Proposed proposed = HdlProposal.of(rest, module.get(), vendor);
            OwnBlock its = proposed.block();
            OwnBlock block =
                    new OwnBlock(
                            its.type(), its.definition(), its.hardware(), its.drivers(), tests);
            return new BlockFromHdl(
                    block, module.get().name(), modules, proposed.reasons(), problems);
        } catch (IllegalArgumentException unknown) {
            problems.add(
                    new BlockProblem(
                            module.get().file() + ":" + module.get().line(), unknown.getMessage()));
            return new BlockFromHdl(null, module.get().name(), modules, List.of(), problems);
        }
    }

    private static List<BlockProblem> names(SortedMap<String, String> files) {
        List<BlockProblem> problems = new ArrayList<>();
        if (files.isEmpty() || files.size() > MOST_FILES) {
            problems.add(new BlockProblem("", "1 to %s files are needed".formatted(MOST_FILES)));
        }
        files.forEach(
                (name, text) -> {
                    if (!name.matches(NAME)) {
                        problems.add(
                                new BlockProblem(
                                        name,
                                        "a file is named with letters, digits and underscores,"
                                                + " then .v, .vh, .sv, .svh, .vhd or .vhdl"));
                    } else if (text.length() > OwnBlockDocument.LONGEST_FILE) {
                        problems.add(new BlockProblem(name, "it is longer than 1 MiB"));
                    }
                });
        return problems;
    }
}
