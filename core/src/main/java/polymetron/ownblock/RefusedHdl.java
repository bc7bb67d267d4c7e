package polymetron.ownblock;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.SortedMap;
import java.util.TreeMap;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import polymetron.hdl.HdlReader;

/**
 * What a user's Verilog and VHDL ({@link RefusedVhdl}) may not contain, because a simulator would do it with the rights of whoever runs it: commands,
 * C code, files, and includes or memory files from elsewhere than the block's own folder (system tasks of IEEE 1800-2017, 20 and
 * 21; {@code $c} is a simulator's own).
 */
final class RefusedHdl {
    /** System functions and tasks that compute, report or end; the rest is refused. */
    private static final Set<String> ALLOWED =
            Set.of(
                    ("acos asin atan atan2 bits bitstoreal bitstoshortreal cast ceil clog2 cos cosh"
                         + " countbits countones dimensions display displayb displayh displayo"
                         + " error exp fatal finish floor high hypot increment info isunbounded"
                         + " isunknown itor left ln log10 low monitor monitoroff monitoron onehot"
                         + " onehot0 past pow random readmemb readmemh realtime realtobits right"
                         + " root rose fell stable changed sampled rtoi shortrealtobits signed sin"
                         + " sinh size sqrt stime stop strobe tan tanh time timeformat typename"
                         + " unit unpacked_dimensions unsigned urandom urandom_range warning write")
                            .split(" "));

    private static final Pattern SYSTEM = Pattern.compile("\\$([A-Za-z_][A-Za-z0-9_$]*)?");

    private static final Pattern FOREIGN =
            Pattern.compile("\\b(import|export)\\s+\"DPI(-C)?\"|`(?=`)");

    /** Files that are named: only those beside the file. */
    private static final Pattern NAMED =
            Pattern.compile(
                    "(?:`include|\\$readmem[bh]\\s*\\()\\s*(?:\"([^\"]*)\"|<([^>]*)>|([^\"<\\s][^,)\\n"
                        + "]*))");

    private static final Pattern OWN_FILE = Pattern.compile("[A-Za-z0-9_][A-Za-z0-9_.-]*");

    /** A path in a string, but for one that is only printed. */
    private static final Pattern PATH =
            Pattern.compile(
                    "(\\$(?:display|write|error|warning|info|fatal|strobe|monitor)\\w*\\s*\\([^;\"]*)?(\"[^\"\\n"
                        + "]*(?:/|\\\\|\\.\\.)[^\"\\n"
                        + "]*\")");

    private static final Pattern BY_PARAMETER =
            Pattern.compile("\\$readmem[bh]\\s*\\(\\s*[^\"\\s]");

    private static final int MOST = 100;

    private RefusedHdl() {}

    /** Everything that is refused, with file and line. */
    static List<BlockProblem> of(SortedMap<String, String> files) {
        List<BlockProblem> problems = new ArrayList<>();
        SortedMap<String, String> codes = new TreeMap<>();
        files.forEach(
                (name, text) -> {
                    if (HdlReader.isVhdl(name)) {
                        RefusedVhdl.find(name, text, problems);
                    } else {
                        codes.put(name, HdlText.withoutComments(text));
                    }
                });
        boolean namesByParameter =
                codes.values().stream().anyMatch(code -> BY_PARAMETER.matcher(code).find());
        codes.forEach(
                (name, code) -> {
                    if (namesByParameter) {
                        paths(name, code, problems);
                    }
                    system(name, code, problems);
                    Matcher foreign = FOREIGN.matcher(code);
                    while (problems.size() < MOST && foreign.find()) {
                        String why =
                                foreign.group().startsWith("`")
                                        ? "with it a macro makes names that cannot be looked at"
                                        : "DPI calls foreign code";
                        String what = foreign.group().startsWith("`") ? "``" : foreign.group();
                        problems.add(problem(name, code, foreign.start(), what, why));
                    }
                    named(files, name, code, problems);
                });
        problems.sort(
                java.util.Comparator.comparing(BlockProblem::at).thenComparing(BlockProblem::what));
        return problems;
    }

    private static void system(String name, String code, List<BlockProblem> problems) {
        Matcher found = SYSTEM.matcher(code);
        while (problems.size() < MOST && found.find()) {
            String task = found.group(1);
            boolean isBound = task == null && isBound(code, found.end());
            if (isBound || task != null && ALLOWED.contains(task)) {
                continue;
            }
            problems.add(
                    problem(
                            name,
                            code,
                            found.start(),
                            found.group(),
                            "a block may compute and report, and read its own memory files; it"
                                    + " reaches nothing else of the machine"));
        }
    }

    /** A dollar sign alone is the last index of a queue, or no bound of a range (IEEE 1800-2017, 7.10, 11.4.13). */
    private static boolean isBound(String code, int from) {
        int at = from;
        while (at < code.length() && Character.isWhitespace(code.charAt(at))) {
            at++;
        }
        return at < code.length() && (code.charAt(at) == ']' || code.charAt(at) == ')');
    }

    private static BlockProblem problem(String file, String code, int at, String what, String why) {
        return new BlockProblem(
                "%s:%s".formatted(file, HdlText.line(code, at)),
                "%s is refused: %s".formatted(what.strip(), why));
    }

    private static void named(
            SortedMap<String, String> files,
            String name,
            String code,
            List<BlockProblem> problems) {
        Matcher found = NAMED.matcher(code);
        while (problems.size() < MOST && found.find()) {
            boolean isInclude = found.group().startsWith("`include");
            String path = found.group(1) != null ? found.group(1) : found.group(2);
            if (path == null && !isInclude) {
                // The name comes from elsewhere: paths() looks at all strings.
                continue;
            }
            if (path == null || !OWN_FILE.matcher(path).matches() || path.contains("..")) {
                problems.add(
                        problem(
                                name,
                                code,
                                found.start(),
                                found.group(),
                                "only files beside it can be named"));
            } else if (isInclude && !files.containsKey(path)) {
                problems.add(
                        new BlockProblem(
                                "%s:%s".formatted(name, HdlText.line(code, found.start())),
                                "there is no file %s in the block; add it".formatted(path)));
            }
        }
    }

    /** Where a memory file is named by a parameter, no string of the block may be a path. */
    private static void paths(String name, String code, List<BlockProblem> problems) {
        Matcher path = PATH.matcher(code);
        while (problems.size() < MOST && path.find()) {
            if (path.group(1) == null) {
                problems.add(
                        problem(
                                name,
                                code,
                                path.start(2),
                                path.group(2),
                                "a memory file is named by a parameter, and only files beside it"
                                        + " can be named"));
            }
        }
    }
}
