package polymetron.hdl;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import java.util.SortedMap;
import org.antlr.v4.runtime.CharStreams;
import org.antlr.v4.runtime.CommonTokenStream;
import polymetron.hdl.grammar.VerilogHeader;
import polymetron.hdl.grammar.VerilogLexer;

/**
 * Reads the declaration part of Verilog and SystemVerilog modules (IEEE 1800-2017, 23.2): parameters and ports with their widths
 * as expressions, in the port list or behind it. What it cannot read it names with file and line; it never guesses.
 */
public final class VerilogReader {
    private static final Set<Integer> OPENING =
            Set.of(VerilogLexer.OPEN, VerilogLexer.LEFT, VerilogLexer.LBRACE);
    private static final Set<Integer> CLOSING =
            Set.of(VerilogLexer.CLOSE, VerilogLexer.RIGHT, VerilogLexer.RBRACE);

    private static final int MOST_MODULES = 1000;
    private static final int MOST_PROBLEMS = 100;

    private final SortedMap<String, String> files;
    private final List<HdlModule> modules = new ArrayList<>();
    private final List<HdlProblem> problems = new ArrayList<>();

    /** Constants of packages, as {@code package.NAME}, and by their names alone where they are imported. */
    private final Map<String, String> constants = new LinkedHashMap<>();

    private final Set<String> seen = new HashSet<>();

    private VerilogReader(SortedMap<String, String> files) {
        this.files = files;
    }

    /**
     * @param files texts by file name; those that end in {@code h} are only read where they are included
     */
    public static HdlReading read(SortedMap<String, String> files) {
        VerilogReader reader = new VerilogReader(files);
        List<String> names = files.keySet().stream().filter(name -> !name.endsWith("h")).toList();
        names.forEach(reader::file);
        List<HdlModule> modules =
                reader.modules.stream()
                        .map(
                                each ->
                                        new HdlModule(
                                                each.name(),
                                                each.file(),
                                                each.line(),
                                                each.parameters(),
                                                each.ports(),
                                                reader.constants))
                        .toList();
        return new HdlReading(
                modules, reader.problems.stream().distinct().limit(MOST_PROBLEMS).toList());
    }

    private void file(String name) {
        Directives.Result source = Directives.of(files, name);
        problems.addAll(source.problems());
        List<Directives.Line> lines = source.lines();
        StringBuilder text = new StringBuilder();
        lines.forEach(line -> text.append(line.text()).append('\n'));
        VerilogLexer lexer = new VerilogLexer(CharStreams.fromString(text.toString()));
        lexer.removeErrorListeners();
        CommonTokenStream tokens = new CommonTokenStream(lexer);
        tokens.fill();
        OptionalInt tooDeep = HdlSyntax.tooDeep(tokens.getTokens(), OPENING, CLOSING);
        if (tooDeep.isPresent()) {
            say(lines, tooDeep.getAsInt(), HdlSyntax.TOO_DEEP);
            return;
        }
        VerilogHeader parser = new VerilogHeader(tokens);
        parser.removeErrorListeners();
        parser.addErrorListener(new HdlSyntax("module", (line, what) -> say(lines, line, what)));
        VerilogHeader.SourceContext parsed = parser.source();
        parsed.package_().forEach(this::constantsOf);
        for (VerilogHeader.ModuleContext module : parsed.module()) {
            module(new ModuleDeclaration(module, tokens, lines, problems), lines);
        }
    }

    private void say(List<Directives.Line> lines, int line, String what) {
        problems.add(problem(lines, line, what));
    }

    /** A problem in a line of the text that directives made. */
    static HdlProblem problem(List<Directives.Line> lines, int line, String what) {
        Directives.Line at = lines.get(Math.clamp(line - 1, 0, lines.size() - 1));
        return new HdlProblem(at.file(), at.number(), what);
    }

    private void constantsOf(VerilogHeader.PackageContext of) {
        String name = of.IDENTIFIER().getText();
        for (VerilogHeader.ItemContext item : of.item()) {
            if (item.parameterDeclaration() != null) {
                item.parameterDeclaration()
                        .assignment()
                        .forEach(
                                each -> {
                                    if (each.value() != null) {
                                        String constant = each.IDENTIFIER().getText();
                                        String value = HdlExpression.of(each.value());
                                        constants.put(name + "." + constant, value);
                                        // An import brings it in under its own name.
                                        constants.putIfAbsent(constant, value);
                                    }
                                });
            }
        }
    }

    private void module(ModuleDeclaration declaration, List<Directives.Line> lines) {
        HdlModule module = declaration.read();
        if (module == null) {
            return;
        }
        if (seen.size() == MOST_MODULES) {
            refuse(module, "there are more than %s modules".formatted(MOST_MODULES));
            return;
        }
        if (!seen.add(module.name())) {
            refuse(module, "there are two modules %s".formatted(module.name()));
            return;
        }
        Optional<String> refusal = HdlLimits.refusal(module);
        if (refusal.isPresent()) {
            refuse(module, refusal.get());
            return;
        }
        modules.add(module);
    }

    private void refuse(HdlModule module, String why) {
        problems.add(new HdlProblem(module.file(), module.line(), why));
    }
}
