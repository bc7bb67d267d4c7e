package polymetron.ownblock;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.SortedMap;
import java.util.TreeSet;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import polymetron.hdl.HdlModule;
import polymetron.hdl.HdlPort;
import polymetron.hdl.HdlReader;
import polymetron.hdl.HdlReading;
import polymetron.verilog.Module;

/**
 * Where a block's modules are used in each other by name: a port that is connected has to be there, and an input that is there has
 * to be connected. That is what goes wrong first when one of the files changes.
 */
final class Instances {
    private static final Pattern NAMED = Pattern.compile("\\.\\s*(\\w+)\\s*\\(");

    private static final Pattern IN_VHDL =
            Pattern.compile(
                    ":\\s*(?:entity\\s+\\w+\\s*\\.\\s*|component\\s+)?(\\w+)\\s+(?:generic|port)\\s+map\\b");

    private static final Pattern WORD = Pattern.compile("[A-Za-z_$][\\w$]*");
    private static final Pattern NAME = Pattern.compile("\\s*[A-Za-z_]\\w*\\s*\\(");
    private static final Set<String> DECLARING =
            Set.of("module", "macromodule", "automatic", "static");

    private static final int MOST = 100;

    private final Map<String, HdlModule> modules = new HashMap<>();
    private final Map<String, Set<String>> portsOf = new HashMap<>();
    private final List<BlockProblem> problems = new ArrayList<>();
    private final Set<String> used = new TreeSet<>();

    private Instances(SortedMap<String, String> files, HdlReading reading) {
        for (HdlModule module : reading.modules()) {
            modules.put(module.name(), module);
            portsOf.put(
                    module.name(),
                    module.ports().stream().map(HdlPort::name).collect(Collectors.toSet()));
        }
        files.forEach(
                (name, text) -> {
                    if (HdlReader.isVhdl(name)) {
                        vhdl(VhdlText.words(text));
                    } else {
                        file(name, HdlText.withoutComments(text));
                    }
                });
    }

    /**
     * @param reading what was read of the files without a problem
     */
    static List<BlockProblem> problems(SortedMap<String, String> files, HdlReading reading) {
        return new Instances(files, reading).problems;
    }

    /** The first module that no other one uses; of a circle the first of all. */
    static Optional<HdlModule> top(SortedMap<String, String> files, HdlReading reading) {
        Set<String> used = new Instances(files, reading).used;
        return reading.modules().stream()
                .filter(module -> !used.contains(module.name()))
                .findFirst()
                .or(() -> reading.modules().stream().findFirst());
    }

    /** Entities that are instances of others, as such or by a component; a compiler checks how they are connected. */
    private void vhdl(String words) {
        Set<String> named =
                IN_VHDL.matcher(words)
                        .results()
                        .map(found -> found.group(1))
                        .collect(Collectors.toSet());
        modules.keySet().stream()
                .filter(each -> named.contains(each.toLowerCase(Locale.ROOT)))
                .forEach(used::add);
    }

    /** Goes over the words of a file once. */
    private void file(String file, String code) {
        Matcher word = WORD.matcher(code);
        String before = "";
        while (word.find()) {
            HdlModule module = modules.get(word.group());
            if (module != null && !DECLARING.contains(before)) {
                instance(file, code, word.start(), word.end(), module);
            }
            before = word.group();
        }
    }

    private void instance(String file, String code, int start, int end, HdlModule module) {
        int at = end;
        while (at < code.length() && Character.isWhitespace(code.charAt(at))) {
            at++;
        }
        if (at < code.length() && code.charAt(at) == '#') {
            at = behindBrackets(code, code.indexOf('(', at));
        }
        Matcher name = NAME.matcher(code);
        if (at > 0 && name.region(at, code.length()).lookingAt()) {
            used.add(module.name());
            int behind = behindBrackets(code, name.end() - 1);
            if (behind > 0) {
                connections(file, code, start, code.substring(name.end(), behind - 1), module);
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
        Set<String> wrong = new LinkedHashSet<>();
        for (String port : connected) {
            if (!portsOf.get(module.name()).contains(port)) {
                wrong.add(
                        "module %s has no port %s any more; take its connection out"
                                .formatted(module.name(), port));
            }
        }
        for (HdlPort port : module.ports()) {
            if (port.way() == Module.Way.INPUT && !connected.contains(port.name())) {
                wrong.add(
                        "input %s of module %s is not connected; add .%s(…)"
                                .formatted(port.name(), module.name(), port.name()));
            }
        }
        if (!wrong.isEmpty() && problems.size() < MOST) {
            String place = "%s:%s".formatted(file, HdlText.line(code, at));
            wrong.forEach(each -> problems.add(new BlockProblem(place, each)));
        }
    }
}
