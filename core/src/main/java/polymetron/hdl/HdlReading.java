package polymetron.hdl;

import java.util.List;
import java.util.Optional;

/**
 * What was found in HDL files.
 *
 * @param problems what could not be read, in the order of the files
 */
public record HdlReading(List<HdlModule> modules, List<HdlProblem> problems) {
    public HdlReading {
        modules = List.copyOf(modules);
        problems = List.copyOf(problems);
    }

    public Optional<HdlModule> module(String name) {
        return modules.stream().filter(each -> each.name().equals(name)).findFirst();
    }
}
