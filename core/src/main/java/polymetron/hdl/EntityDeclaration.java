package polymetron.hdl;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import org.antlr.v4.runtime.CommonTokenStream;
import org.antlr.v4.runtime.ParserRuleContext;
import org.antlr.v4.runtime.tree.TerminalNode;
import polymetron.hdl.grammar.VhdlHeader;
import polymetron.verilog.Module;

/**
 * One entity out of the tree of its declaration. Its names keep the case in which they are declared; whole numbers can be chosen of
 * its generics, the others keep their defaults.
 */
final class EntityDeclaration {
    private static final Set<String> WHOLE = Set.of("integer", "natural", "positive");
    private static final Set<String> BITS = Set.of("std_logic", "std_ulogic", "bit");
    private static final Set<String> VECTORS =
            Set.of(
                    "std_logic_vector",
                    "std_ulogic_vector",
                    "bit_vector",
                    "unsigned",
                    "signed",
                    "u_unsigned",
                    "u_signed");

    private final VhdlHeader.EntityContext entity;
    private final String file;
    private final DeclarationComment comments;
    private final List<HdlProblem> problems;
    private final Map<String, String> spellings = new HashMap<>();
    private final VhdlExpression expressions = new VhdlExpression(spellings);
    private boolean refused;

    EntityDeclaration(
            VhdlHeader.EntityContext entity,
            String file,
            CommonTokenStream tokens,
            List<HdlProblem> problems) {
        this.entity = entity;
        this.file = file;
        this.comments =
                new DeclarationComment(
                        tokens, Set.of(VhdlHeader.COMMA, VhdlHeader.SEMICOLON, VhdlHeader.CLOSE));
        this.problems = problems;
    }

    /** Null where something was refused, which the problems say. */
    HdlModule read() {
        List<HdlParameter> generics = new ArrayList<>();
        Map<String, HdlPort> ports = new LinkedHashMap<>();
        if (entity.generics() != null) {
            entity.generics().generic().forEach(each -> generic(each, generics));
        }
        if (entity.ports() != null) {
            entity.ports().port().forEach(each -> port(each, ports));
        }
        String name = plain(entity.IDENTIFIER());
        return refused
                ? null
                : new HdlModule(
                        name,
                        file,
                        entity.getStart().getLine(),
                        generics,
                        List.copyOf(ports.values()),
                        Map.of());
    }

    private void say(ParserRuleContext where, String what, Object... values) {
        say(where.getStart().getLine(), what.formatted(values));
    }

    private void say(int line, String what) {
        refused = true;
        problems.add(new HdlProblem(file, line, what));
    }

    /** An extended identifier has no counterpart outside VHDL that all tools agree on. */
    private String plain(TerminalNode identifier) {
        if (identifier.getText().startsWith("\\")) {
            say(
                    identifier.getSymbol().getLine(),
                    "%s is an extended identifier; give it a plain name"
                            .formatted(identifier.getText()));
        }
        return identifier.getText();
    }

    private static String type(VhdlHeader.SubtypeContext subtype) {
        return subtype.typeName()
                .IDENTIFIER(subtype.typeName().IDENTIFIER().size() - 1)
                .getText()
                .toLowerCase(Locale.ROOT);
    }

    private void generic(VhdlHeader.GenericContext generic, List<HdlParameter> generics) {
        if (generic.exception != null) {
            refused = true;
            return;
        }
        boolean isWhole = WHOLE.contains(type(generic.subtype()));
        for (TerminalNode identifier : generic.IDENTIFIER()) {
            String name = plain(identifier);
            if (spellings.put(name.toLowerCase(Locale.ROOT), name) != null) {
                say(generic, "generic %s is declared twice", name);
            }
            String[] limits = isWhole ? limits(generic.subtype()) : new String[2];
            generics.add(
                    new HdlParameter(
                            name,
                            initial(generic.expression(), isWhole),
                            !isWhole,
                            limits[0],
                            limits[1],
                            identifier.getSymbol().getLine(),
                            comments.of(generic)));
        }
    }

    /** The default, as it stands there where it is no whole number; null where there is none. */
    private String initial(VhdlHeader.ExpressionContext expression, boolean isWhole) {
        String value = isWhole ? value(expression) : null;
        return value == null && expression != null ? HdlExpression.of(expression) : value;
    }

    /**
     * The lowest and the highest value, as far as they are said; a natural may be 0, but hardly is: then what is as wide as it has
     * no bits.
     */
    private String[] limits(VhdlHeader.SubtypeContext subtype) {
        String[] limits = {type(subtype).equals("positive") ? "1" : null, null};
        if (subtype.RANGE() != null && subtype.range(0).expression().size() == 2) {
            int first = subtype.range(0).DOWNTO() == null ? 0 : 1;
            limits[0] = value(subtype.range(0).expression(first));
            limits[1] = value(subtype.range(0).expression(1 - first));
        }
        return limits;
    }

    /** Null for none, and for one that cannot be worked out: then it has to be set. */
    private String value(VhdlHeader.ExpressionContext expression) {
        try {
            return expression == null ? null : expressions.of(expression);
        } catch (VhdlExpression.Unknown unknown) {
            return null;
        }
    }

    private void port(VhdlHeader.PortContext port, Map<String, HdlPort> ports) {
        if (port.exception != null) {
            refused = true;
            return;
        }
        String width = width(port);
        Module.Way way = way(port);
        if (width == null || way == null) {
            return;
        }
        for (TerminalNode identifier : port.IDENTIFIER()) {
            String name = plain(identifier);
            HdlPort made =
                    new HdlPort(
                            name,
                            way,
                            width,
                            type(port.subtype()).endsWith("signed")
                                    && !type(port.subtype()).endsWith("unsigned"),
                            identifier.getSymbol().getLine(),
                            comments.of(port));
            if (ports.put(name.toLowerCase(Locale.ROOT), made) != null) {
                say(port, "port %s is declared twice; VHDL does not tell cases apart", name);
            }
        }
    }

    private Module.Way way(VhdlHeader.PortContext port) {
        VhdlHeader.DirectionContext direction = port.direction();
        if (direction == null || direction.IN() != null) {
            return Module.Way.INPUT;
        }
        if (direction.LINKAGE() != null) {
            say(port, "port %s is a linkage; make it in, out or inout", port.IDENTIFIER(0));
            return null;
        }
        return direction.INOUT() != null ? Module.Way.INOUT : Module.Way.OUTPUT;
    }

    private String width(VhdlHeader.PortContext port) {
        VhdlHeader.SubtypeContext subtype = port.subtype();
        String type = type(subtype);
        if (BITS.contains(type)) {
            return "1";
        }
        String name = port.IDENTIFIER(0).getText();
        if (!VECTORS.contains(type)) {
            say(
                    port,
                    "port %s is of type %s; make it std_logic or std_logic_vector with a range",
                    name,
                    type);
            return null;
        }
        if (subtype.range().size() != 1 || subtype.RANGE() != null) {
            say(port, "port %s has no range; write it, as in (7 downto 0)", name);
            return null;
        }
        VhdlHeader.RangeContext range = subtype.range(0);
        if (range.expression().size() != 2) {
            say(range, "the range of port %s has no two sides, as in (7 downto 0)", name);
            return null;
        }
        try {
            String one = expressions.of(range.expression(0));
            String other = expressions.of(range.expression(1));
            return range.DOWNTO() != null
                    ? HdlExpression.width(one, other)
                    : HdlExpression.width(other, one);
        } catch (VhdlExpression.Unknown unknown) {
            say(unknown.line(), "the width of port %s: %s".formatted(name, unknown.getMessage()));
            return null;
        }
    }
}
