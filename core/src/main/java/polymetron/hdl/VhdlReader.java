package polymetron.hdl;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import java.util.SortedMap;
import org.antlr.v4.runtime.CharStreams;
import org.antlr.v4.runtime.CommonTokenStream;
import org.antlr.v4.runtime.Token;
import org.antlr.v4.runtime.tree.TerminalNode;
import polymetron.hdl.grammar.VhdlHeader;
import polymetron.hdl.grammar.VhdlLexer;

/**
 * Reads the declaration part of VHDL entities (IEEE 1076-2008, 3.2): generics and ports with their widths as expressions, with
 * constants of packages in the same files. What it cannot read it names with file and line; it never guesses.
 */
final class VhdlReader {
    private static final Set<Integer> OPENING = Set.of(VhdlLexer.OPEN);
    private static final Set<Integer> CLOSING = Set.of(VhdlLexer.CLOSE);

    private static final int MOST_PROBLEMS = 100;

    private final List<HdlModule> entities = new ArrayList<>();
    private final List<HdlProblem> problems = new ArrayList<>();

    /** Constants of packages, as {@code package.name} in lower case, and by their names alone as a use clause brings them in. */
    private final Map<String, String> constants = new LinkedHashMap<>();

    private VhdlReader() {}

    /**
     * @param files texts by file name
     */
    static HdlReading read(SortedMap<String, String> files) {
        VhdlReader reader = new VhdlReader();
        files.forEach(reader::file);
        return new HdlReading(
                reader.entities.stream()
                        .map(
                                each ->
                                        new HdlModule(
                                                each.name(),
                                                each.file(),
                                                each.line(),
                                                each.parameters(),
                                                each.ports(),
                                                reader.constants))
                        .toList(),
                reader.problems.stream().distinct().limit(MOST_PROBLEMS).toList());
    }

    private void file(String name, String text) {
        VhdlLexer lexer = new VhdlLexer(CharStreams.fromString(text));
        lexer.removeErrorListeners();
        CommonTokenStream tokens = new CommonTokenStream(lexer);
        tokens.fill();
        OptionalInt tooDeep = HdlSyntax.tooDeep(tokens.getTokens(), OPENING, CLOSING);
        if (tooDeep.isPresent()) {
            problems.add(new HdlProblem(name, tooDeep.getAsInt(), HdlSyntax.TOO_DEEP));
            return;
        }
        VhdlHeader parser = new VhdlHeader(tokens);
        parser.removeErrorListeners();
        parser.addErrorListener(
                new HdlSyntax(
                        "declaration",
                        (line, what) -> problems.add(new HdlProblem(name, line, what))));
        List<Token> words =
                tokens.getTokens().stream()
                        .filter(token -> token.getChannel() == Token.DEFAULT_CHANNEL)
                        .toList();
        String inPackage = null;
        for (int at = 0; at + 2 < words.size(); at++) {
            Token word = words.get(at);
            boolean isNamed =
                    words.get(at + 1).getType() == VhdlLexer.IDENTIFIER
                            && words.get(at + 2).getType() == VhdlLexer.IS;
            boolean ends = at > 0 && words.get(at - 1).getType() == VhdlLexer.END;
            if (word.getType() == VhdlLexer.ENTITY && isNamed) {
                tokens.seek(word.getTokenIndex());
                int before = problems.size();
                VhdlHeader.EntityContext entity = parser.entity();
                if (problems.size() == before) {
                    add(new EntityDeclaration(entity, name, tokens, problems).read());
                }
                inPackage = null;
            } else if (word.getType() == VhdlLexer.PACKAGE && !ends) {
                inPackage = isNamed ? words.get(at + 1).getText().toLowerCase(Locale.ROOT) : null;
            } else if (word.getType() == VhdlLexer.CONSTANT && inPackage != null) {
                tokens.seek(word.getTokenIndex());
                int before = problems.size();
                VhdlHeader.ConstantContext constant = parser.constant();
                if (problems.size() > before) {
                    // Nothing that a width is made of.
                    problems.subList(before, problems.size()).clear();
                } else {
                    constant(inPackage, constant);
                }
            }
        }
    }

    private void add(HdlModule entity) {
        if (entity == null) {
            return;
        }
        Optional<String> refusal = HdlLimits.refusal(entity);
        if (refusal.isPresent()) {
            problems.add(new HdlProblem(entity.file(), entity.line(), refusal.get()));
            return;
        }
        boolean isThere =
                entities.stream().anyMatch(each -> each.name().equalsIgnoreCase(entity.name()));
        if (isThere) {
            problems.add(
                    new HdlProblem(
                            entity.file(),
                            entity.line(),
                            "there are two entities %s".formatted(entity.name())));
        } else {
            entities.add(entity);
        }
    }

    private void constant(String inPackage, VhdlHeader.ConstantContext constant) {
        if (constant.exception != null || constant.expression() == null) {
            return;
        }
        try {
            String value = new VhdlExpression(new HashMap<>()).of(constant.expression());
            for (TerminalNode each : constant.IDENTIFIER()) {
                String name = each.getText().toLowerCase(Locale.ROOT);
                constants.put(inPackage + "." + name, value);
                constants.putIfAbsent(name, value);
            }
        } catch (VhdlExpression.Unknown noNumber) {
            // Tables and vectors: no width is made of them.
        }
    }
}
