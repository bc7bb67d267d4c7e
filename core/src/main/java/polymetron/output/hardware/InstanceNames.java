package polymetron.output.hardware;

import java.util.HashSet;
import java.util.Set;
import polymetron.verilog.Module;
import polymetron.verilog.ModuleHeader;

/**
 * Names of instances: those of the blocks and buses, but where such a name is a keyword, or one of a net inside of any module,
 * which it would hide, two underscores follow it. No name of a platform has two in a row.
 */
final class InstanceNames {
    private final Set<String> taken = new HashSet<>();

    void know(Module module) {
        module.ports().forEach(port -> taken.add(port.net().name()));
        taken.addAll(module.reads());
    }

    void know(ModuleHeader header) {
        header.ports().forEach(port -> taken.add(port.name()));
    }

    String of(String name) {
        return Keywords.isKeyword(name) || taken.contains(name) ? name + "__" : name;
    }
}
