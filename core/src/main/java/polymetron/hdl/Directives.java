package polymetron.hdl;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.SortedMap;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * Compiler directives of Verilog (IEEE 1800-2017, 22), carried out: includes, conditions and macros. Every line of the result knows
 * which line of which file it comes from. Bounded in depth and size, whatever is included or defined.
 */
final class Directives {
    /** Longest result, in characters. */
    static final int LONGEST = 8 << 20;

    private static final int DEEPEST_INCLUDE = 16;
    private static final int DEEPEST_MACRO = 32;
    private static final int DEEPEST_CONDITION = 100;
    private static final int LONGEST_LINE = 1 << 16;
    private static final int LONGEST_NAME = 256;
    private static final int MOST_REPLACEMENTS = 100_000;

    private static final Set<String> WITHOUT_EFFECT =
            Set.of(
                    "timescale",
                    "default_nettype",
                    "celldefine",
                    "endcelldefine",
                    "resetall",
                    "line",
                    "pragma",
                    "begin_keywords",
                    "end_keywords",
                    "unconnected_drive",
                    "nounconnected_drive",
                    "default_decay_time",
                    "default_trireg_strength",
                    "undefineall");

    private static final Pattern DIRECTIVE =
            Pattern.compile("^\\s*`([A-Za-z_]\\w*)(.*)$", Pattern.DOTALL);
    private static final Pattern NAME = Pattern.compile("\\s*([A-Za-z_]\\w*)");

    /** A line of the result. */
    record Line(String file, int number, String text) {}

    /**
     * @param arguments null for a macro that has none
     */
    private record Macro(List<String> arguments, String text) {}

    /**
     * A condition that is open.
     *
     * @param takes whether its lines count now
     * @param hasTaken whether one of its branches did
     */
    private record Condition(boolean takes, boolean hasTaken, String file, int line) {}

    private final SortedMap<String, String> files;
    private final Map<String, Macro> macros = new HashMap<>();
    private final List<Condition> conditions = new ArrayList<>();
    private final List<Line> lines = new ArrayList<>();
    private final List<HdlProblem> problems = new ArrayList<>();
    private final List<String> including = new ArrayList<>();
    private final Set<String> saidUnknown = new HashSet<>();
    private long length;
    private int replacements;

    /** Characters that macros have made. */
    private long made;

    private Directives(SortedMap<String, String> files) {
        this.files = files;
        macros.put("SYNTHESIS", new Macro(null, ""));
    }

    /** Lines and problems of one file with what it includes. */
    record Result(List<Line> lines, List<HdlProblem> problems) {}

    /**
     * @param files all files that can be included
     */
    static Result of(SortedMap<String, String> files, String file) {
        Directives directives = new Directives(files);
        directives.file(file);
        for (Condition open : directives.conditions) {
            directives.problems.add(
                    new HdlProblem(open.file(), open.line(), "the condition has no `endif"));
        }
        return new Result(directives.lines, directives.problems);
    }

    private boolean takes() {
        return conditions.stream().allMatch(Condition::takes);
    }

    private void say(String file, int line, String what, Object... values) {
        problems.add(new HdlProblem(file, line, what.formatted(values)));
    }

    private void add(String file, int line, String text) {
        length += text.length() + 1;
        if (length <= LONGEST) {
            lines.add(new Line(file, line, text));
        } else if (length - text.length() - 1 <= LONGEST) {
            say(file, line, "includes and macros make more than 8 MiB of this");
        }
    }

    private void file(String name) {
        including.add(name);
        CommentCursor comments = new CommentCursor();
        List<String> raw = files.get(name).lines().toList();
        for (int at = 0; at < raw.size() && length <= LONGEST; at++) {
            int number = at + 1;
            StringBuilder whole = new StringBuilder(raw.get(at));
            Matcher directive = comments.isInside() ? null : DIRECTIVE.matcher(whole);
            boolean isDirective = directive != null && directive.matches();
            // What a macro is defined as goes on behind a backslash.
            while (isDirective
                    && directive.group(1).equals("define")
                    && endsOpen(whole)
                    && at + 1 < raw.size()) {
                whole.setCharAt(whole.length() - 1, ' ');
                at++;
                whole.append(raw.get(at));
            }
            if (isDirective && directive(name, number, whole.toString())) {
                for (int line = number; line <= at + 1; line++) {
                    add(name, line, "");
                }
            } else if (takes()) {
                add(name, number, expanded(name, number, whole.toString(), comments));
            } else {
                comments.over(whole.toString());
                add(name, number, "");
            }
        }
        including.removeLast();
    }

    private static boolean endsOpen(CharSequence line) {
        return line.length() > 0 && line.charAt(line.length() - 1) == '\\';
    }

    /** Whether it is one, and not the use of a macro at the beginning of a line. */
    private boolean directive(String file, int line, String text) {
        Matcher found = DIRECTIVE.matcher(text);
        if (!found.matches()) {
            return false;
        }
        String rest = CommentCursor.withoutComment(found.group(2));
        switch (found.group(1)) {
            case "ifdef", "ifndef" -> {
                boolean isDefined = macros.containsKey(name(rest));
                boolean takes = isDefined == found.group(1).equals("ifdef");
                if (conditions.size() == DEEPEST_CONDITION) {
                    say(file, line, "more than %s conditions are open", DEEPEST_CONDITION);
                    length = LONGEST + 1L;
                } else {
                    conditions.add(new Condition(takes, takes, file, line));
                }
            }
            case "elsif" -> branch(file, line, macros.containsKey(name(rest)));
            case "else" -> branch(file, line, true);
            case "endif" -> {
                if (conditions.isEmpty()) {
                    say(file, line, "there is no condition that `endif would end");
                } else {
                    conditions.removeLast();
                }
            }
            case "define" -> {
                if (takes()) {
                    define(file, line, rest);
                }
            }
            case "undef" -> {
                if (takes()) {
                    macros.remove(name(rest));
                }
            }
            case "include" -> {
                if (takes()) {
                    include(file, line, rest.strip());
                }
            }
            default -> {
                return WITHOUT_EFFECT.contains(found.group(1));
            }
        }
        return true;
    }

    private static String name(String text) {
        Matcher found = NAME.matcher(text);
        return found.lookingAt() ? found.group(1) : "";
    }

    private void branch(String file, int line, boolean holds) {
        if (conditions.isEmpty()) {
            say(file, line, "there is no condition that this belongs to");
            return;
        }
        Condition open = conditions.removeLast();
        boolean takes = holds && !open.hasTaken();
        conditions.add(new Condition(takes, open.hasTaken() || takes, open.file(), open.line()));
    }

    private void define(String file, int line, String text) {
        Matcher found = NAME.matcher(text);
        if (!found.lookingAt()) {
            say(file, line, "`define needs a name");
            return;
        }
        String rest = text.substring(found.end());
        List<String> arguments = null;
        if (rest.startsWith("(")) {
            int end = rest.indexOf(')');
            if (end < 0) {
                say(file, line, "the arguments of macro %s do not end", found.group(1));
                return;
            }
            arguments = new ArrayList<>();
            for (String argument : rest.substring(1, end).split(",")) {
                arguments.add(name(argument));
            }
            rest = rest.substring(end + 1);
        }
        macros.put(found.group(1), new Macro(arguments, rest.strip()));
    }

    private void include(String file, int line, String what) {
        String name = what.length() > 2 ? what.substring(1, what.length() - 1) : "";
        if (!files.containsKey(name)) {
            say(file, line, "there is no file %s to include; add it", what);
        } else if (including.contains(name)) {
            say(file, line, "%s includes itself: %s", name, String.join(", ", including));
        } else if (including.size() >= DEEPEST_INCLUDE) {
            say(file, line, "more than %s files include each other", DEEPEST_INCLUDE);
        } else {
            file(name);
        }
    }

    /** A line with its macros replaced, but for those in comments and strings. */
    private String expanded(String file, int line, String text, CommentCursor comments) {
        if (text.indexOf('`') < 0) {
            comments.over(text);
            return text;
        }
        StringBuilder out = new StringBuilder();
        for (CommentCursor.Piece piece : comments.over(text)) {
            out.append(piece.isCode() ? replaced(file, line, piece.text(), 0) : piece.text());
        }
        return out.length() > LONGEST_LINE ? out.substring(0, LONGEST_LINE) : out.toString();
    }

    private String replaced(String file, int line, String text, int depth) {
        StringBuilder out = new StringBuilder();
        int from = 0;
        for (int at = text.indexOf('`'); at >= 0; at = text.indexOf('`', from)) {
            out.append(text, from, at);
            String name = name(text.substring(at + 1, Math.min(text.length(), at + LONGEST_NAME)));
            from = at + 1 + name.length();
            Macro macro = macros.get(name);
            replacements++;
            made += macro == null ? 0 : macro.text().length();
            if (depth > DEEPEST_MACRO || replacements > MOST_REPLACEMENTS || made > LONGEST) {
                if (saidUnknown.add("`")) {
                    say(file, line, "macros that use each other do not come to an end");
                }
            } else if (macro == null) {
                if (saidUnknown.add(name)) {
                    say(file, line, "macro `%s is not defined", name);
                }
            } else if (macro.arguments() == null) {
                out.append(replaced(file, line, macro.text(), depth + 1));
            } else {
                List<String> given = new ArrayList<>();
                int end = MacroArguments.of(text, from, given);
                if (end < 0) {
                    say(file, line, "the arguments of macro `%s are not all on one line", name);
                    return out.toString();
                }
                from = end;
                String filled = MacroArguments.filled(macro.text(), macro.arguments(), given);
                out.append(replaced(file, line, filled, depth + 1));
            }
        }
        return out.append(text, from, text.length()).toString();
    }
}
