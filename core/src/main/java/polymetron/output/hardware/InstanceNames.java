package polymetron.output.hardware;

import java.util.Collections;
import java.util.HashSet;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import polymetron.verilog.Module;
import polymetron.verilog.ModuleHeader;

/**
 * Names of instances: those of the blocks and buses, but where such a name is a keyword, or one of a net inside of any module,
 * which it would hide, two underscores follow it. No name of a platform has two in a row.
 */
final class InstanceNames {
    private final Set<String> taken = new HashSet<>();
    private final Set<String> given = new HashSet<>();
    private final Map<String, String> renamed = new TreeMap<>();

    void know(Module module) {
        module.ports().forEach(port -> taken.add(port.net().name()));
        taken.addAll(module.reads());
    }

    void know(ModuleHeader header) {
        header.ports().forEach(port -> taken.add(port.name()));
    }

    /** Whether one that was given already is one of these nets, and is another from now on. */
    boolean know(Set<String> nets) {
        taken.addAll(nets);
        return given.stream().anyMatch(nets::contains);
    }

    String of(String name) {
        given.add(name);
        if (!Keywords.isKeyword(name) && !taken.contains(name)) {
            return name;
        }
        return renamed.computeIfAbsent(name, each -> each + "__");
    }

    /** Names that are not those of the platform, by those. */
    Map<String, String> renamed() {
        return Collections.unmodifiableMap(renamed);
    }
}
