package polymetron.hdl;

import java.util.ArrayList;
import java.util.List;
import java.util.SortedMap;
import java.util.TreeMap;
import java.util.stream.Stream;

/** Reads the declarations in files of either language; which one it is the end of a file's name says. */
public final class HdlReader {
    private HdlReader() {}

    /** Whether a file is VHDL. */
    public static boolean isVhdl(String file) {
        return file.endsWith(".vhd") || file.endsWith(".vhdl");
    }

    /**
     * @param files texts by file name
     */
    public static HdlReading read(SortedMap<String, String> files) {
        SortedMap<String, String> verilog = new TreeMap<>(files);
        SortedMap<String, String> vhdl = new TreeMap<>(files);
        verilog.keySet().removeIf(HdlReader::isVhdl);
        vhdl.keySet().removeIf(file -> !isVhdl(file));
        HdlReading first = VerilogReader.read(verilog);
        HdlReading second = VhdlReader.read(vhdl);
        List<HdlProblem> problems = new ArrayList<>(first.problems());
        problems.addAll(second.problems());
        for (HdlModule entity : second.modules()) {
            if (first.module(entity.name()).isPresent()) {
                problems.add(
                        new HdlProblem(
                                entity.file(),
                                entity.line(),
                                "%s is an entity and a module; rename one"
                                        .formatted(entity.name())));
            }
        }
        return new HdlReading(
                Stream.concat(first.modules().stream(), second.modules().stream()).toList(),
                problems);
    }
}
