package polymetron.ownblock;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.SortedMap;
import java.util.TreeSet;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import polymetron.hdl.HdlModule;
import polymetron.hdl.HdlPort;
import polymetron.hdl.HdlReading;
import polymetron.verilog.Module;

/**
 * Where a block's modules are used in each other by name: a port that is connected has to be there, and an input that is there has
 * to be connected. That is what goes wrong first when one of the files changes.
 */
final class Instances {
    private static final Pattern NAMED = Pattern.compile("\\.\\s*(\\w+)\\s*\\(");

    private final SortedMap<String, String> files;
    private final HdlReading reading;
    private final List<BlockProblem> problems = new ArrayList<>();

    private Instances(SortedMap<String, String> files, HdlReading reading) {
        this.files = files;
        this.reading = reading;
    }

    static List<BlockProblem> problems(SortedMap<String, String> files, HdlReading reading) {
        Instances instances = new Instances(files, reading);
        files.forEach(
                (name, text) -> {
                    String code = HdlText.withoutComments(text);
                    reading.modules().forEach(module -> instances.of(name, code, module));
                });
        return instances.problems;
    }

    private void of(String file, String code, HdlModule module) {
        Matcher used =
                Pattern.compile(
                                "(?<!module)(?<![\\w.`$])\\b%s\\b\\s*(?=#|[A-Za-z_])"
                                        .formatted(Pattern.quote(module.name())))
                        .matcher(code);
        while (used.find()) {
            boolean isDeclaration =
                    code.substring(0, used.start())
                            .matches("(?s).*\\b(module|macromodule)(\\s+automatic)?\\s+$");
            int at = used.end();
            if (!isDeclaration && at < code.length() && code.charAt(at) == '#') {
                at = behindBrackets(code, code.indexOf('(', at));
            }
            Matcher name = Pattern.compile("\\s*[A-Za-z_]\\w*\\s*\\(").matcher(code);
            if (!isDeclaration && at > 0 && name.find(at) && name.start() == at) {
                int end = behindBrackets(code, name.end() - 1);
                if (end > 0) {
                    connections(
                            file, code, used.start(), code.substring(name.end(), end - 1), module);
                }
            }
        }
    }

    /** The place behind the bracket that closes the one at a place; negative where none does. */
    private static int behindBrackets(String code, int open) {
        int depth = 0;
        for (int at = open; at >= 0 && at < code.length(); at++) {
            depth += code.charAt(at) == '(' ? 1 : code.charAt(at) == ')' ? -1 : 0;
            if (depth == 0) {
                return at + 1;
            }
        }
        return -1;
    }

    private void connections(String file, String code, int at, String inside, HdlModule module) {
        Set<String> connected = new TreeSet<>();
        Matcher named = NAMED.matcher(inside);
        int next = 0;
        while (named.find(next)) {
            connected.add(named.group(1));
            int behind = behindBrackets(inside, named.end() - 1);
            if (behind < 0) {
                return;
            }
            next = behind;
        }
        // In order, or all by the names of nets: for a compiler to check.
        if (connected.isEmpty() || inside.contains(".*")) {
            return;
        }
        String place = "%s:%s".formatted(file, HdlText.line(code, at));
        for (String port : connected) {
            if (module.port(port).isEmpty()) {
                problems.add(
                        new BlockProblem(
                                place,
                                "module %s has no port %s any more; take its connection out"
                                        .formatted(module.name(), port)));
            }
        }
        for (HdlPort port : module.ports()) {
            if (port.way() == Module.Way.INPUT && !connected.contains(port.name())) {
                problems.add(
                        new BlockProblem(
                                place,
                                "input %s of module %s is not connected; add .%s(…)"
                                        .formatted(port.name(), module.name(), port.name())));
            }
        }
    }
}
