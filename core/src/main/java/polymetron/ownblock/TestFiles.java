package polymetron.ownblock;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.SortedMap;
import java.util.TreeMap;
import polymetron.hdl.HdlModule;
import polymetron.hdl.HdlReader;
import polymetron.hdl.HdlReading;

/** Files that try a block in simulation: each has one module without ports, which makes the block's inputs itself. */
public final class TestFiles {
    private TestFiles() {}

    /** Name of the module of a test that nothing else contains; empty where it cannot be told. */
    public static Optional<String> top(String name, String text) {
        List<String> tops =
                HdlReader.read(new TreeMap<>(java.util.Map.of(name, text))).modules().stream()
                        .filter(each -> each.ports().isEmpty())
                        .map(HdlModule::name)
                        .toList();
        return tops.size() == 1 ? Optional.of(tops.getFirst()) : Optional.empty();
    }

    /** What is wrong with the tests of a block. */
    static List<BlockProblem> problems(OwnBlock block) {
        List<BlockProblem> problems = new ArrayList<>(RefusedHdl.of(block.tests()));
        block.tests()
                .forEach(
                        (name, text) -> {
                            if (block.hardware().containsKey(name)) {
                                problems.add(
                                        new BlockProblem(
                                                name,
                                                "there is an HDL file of this name; give the test"
                                                        + " another one"));
                            } else if (top(name, text).isEmpty()) {
                                problems.add(
                                        new BlockProblem(
                                                name,
                                                "a test has one module without ports, which has"
                                                        + " the block's module in it"));
                            }
                        });
        return problems;
    }

    /** Files with nothing but modules without ports, where the module of the block is in another. */
    static SortedMap<String, String> among(
            SortedMap<String, String> files, HdlReading reading, String ofBlock) {
        SortedMap<String, String> tests = new TreeMap<>();
        files.forEach(
                (name, text) -> {
                    List<HdlModule> modules =
                            reading.modules().stream()
                                    .filter(each -> each.file().equals(name))
                                    .toList();
                    if (!name.equals(ofBlock)
                            && name.matches(".*\\.s?v")
                            && modules.size() == 1
                            && modules.getFirst().ports().isEmpty()) {
                        tests.put(name, text);
                    }
                });
        return tests;
    }

    /** The first module that no other one uses, tests left out where there is anything else. */
    static Optional<HdlModule> topBesides(SortedMap<String, String> files, HdlReading reading) {
        SortedMap<String, String> rest = new TreeMap<>(files);
        rest.keySet().removeAll(among(files, reading, "").keySet());
        List<HdlModule> modules =
                reading.modules().stream().filter(each -> rest.containsKey(each.file())).toList();
        return modules.isEmpty()
                ? Instances.top(files, reading)
                : Instances.top(rest, new HdlReading(modules, List.of()));
    }
}
