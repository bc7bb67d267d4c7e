package polymetron.hdl;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.antlr.v4.runtime.CommonTokenStream;
import org.antlr.v4.runtime.ParserRuleContext;
import org.antlr.v4.runtime.Token;
import org.antlr.v4.runtime.tree.TerminalNode;
import polymetron.hdl.grammar.VerilogHeader;
import polymetron.verilog.Module;

/** One module out of the tree of its file. */
final class ModuleDeclaration {
    private static final Map<String, String> ATOM_BITS =
            Map.of(
                    "integer",
                    "32",
                    "int",
                    "32",
                    "shortint",
                    "16",
                    "longint",
                    "64",
                    "byte",
                    "8",
                    "time",
                    "64");

    private final VerilogHeader.ModuleContext module;
    private final DeclarationComment comments;
    private final List<Directives.Line> lines;
    private final List<HdlProblem> problems;
    private final List<HdlParameter> parameters = new ArrayList<>();
    private final Map<String, HdlPort> ports = new LinkedHashMap<>();
    private boolean refused;

    /** Names in a port list that are declared behind it. */
    private final List<String> open = new ArrayList<>();

    private VerilogHeader.DirectionContext lastDirection;
    private VerilogHeader.PortTypeContext lastType;

    ModuleDeclaration(
            VerilogHeader.ModuleContext module,
            CommonTokenStream tokens,
            List<Directives.Line> lines,
            List<HdlProblem> problems) {
        this.module = module;
        this.comments =
                new DeclarationComment(
                        tokens, Set.of(VerilogHeader.COMMA, VerilogHeader.SEMICOLON));
        this.lines = lines;
        this.problems = problems;
    }

    /** Null where something was refused, which the problems say. */
    HdlModule read() {
        if (module.exception != null || module.name == null) {
            return null;
        }
        if (module.parameterList() != null) {
            boolean isLocal = false;
            for (VerilogHeader.ParameterGroupContext group :
                    module.parameterList().parameterGroup()) {
                isLocal = group.kind == null ? isLocal : isLocal(group.kind);
                parameter(group.parameterType(), group.assignment(), isLocal, group);
            }
        }
        if (module.portList() != null) {
            module.portList().port().forEach(this::port);
        }
        for (VerilogHeader.ItemContext item : module.item()) {
            if (item.parameterDeclaration() != null) {
                VerilogHeader.ParameterDeclarationContext declared = item.parameterDeclaration();
                // Where there is a parameter list, those behind it are local (IEEE 1800-2017,
                // 6.20.1).
                boolean isLocal = isLocal(declared.kind) || module.parameterList() != null;
                declared.assignment()
                        .forEach(each -> parameter(declared.parameterType(), each, isLocal, each));
            } else if (item.portDeclaration() != null) {
                declaration(item.portDeclaration());
            }
        }
        for (String name : open) {
            if (!ports.containsKey(name)) {
                say(module.getStart(), "port %s is never declared", name);
            }
        }
        if (refused) {
            return null;
        }
        Directives.Line at = lines.get(module.getStart().getLine() - 1);
        List<HdlPort> inOrder = new ArrayList<>();
        open.forEach(name -> inOrder.add(ports.remove(name)));
        inOrder.addAll(0, ports.values());
        return new HdlModule(
                name(module.name.getText()), at.file(), at.number(), parameters, inOrder, Map.of());
    }

    private static boolean isLocal(Token kind) {
        return kind.getType() == VerilogHeader.LOCALPARAM;
    }

    private void say(Token at, String what, Object... values) {
        refused = true;
        problems.add(VerilogReader.problem(lines, at.getLine(), what.formatted(values)));
    }

    private static String name(String identifier) {
        return identifier.startsWith("\\") ? identifier.substring(1) : identifier;
    }

    private void parameter(
            VerilogHeader.ParameterTypeContext type,
            VerilogHeader.AssignmentContext assignment,
            boolean isLocal,
            ParserRuleContext around) {
        if (assignment == null || assignment.IDENTIFIER() == null) {
            return;
        }
        String name = name(assignment.IDENTIFIER().getText());
        if (type.TYPE() != null) {
            say(type.getStart(), "parameter %s is a type; only values can be chosen", name);
            return;
        }
        parameters.add(
                new HdlParameter(
                        name,
                        assignment.value() == null ? null : HdlExpression.of(assignment.value()),
                        isLocal,
                        null,
                        null,
                        line(assignment.getStart()),
                        comments.of(around)));
    }

    private int line(Token token) {
        return lines.get(token.getLine() - 1).number();
    }

    private void port(VerilogHeader.PortContext port) {
        if (port.exception != null || port.getChildCount() == 0) {
            return;
        }
        if (port.IDENTIFIER() == null || port.DOT() != null) {
            say(
                    port.getStart(),
                    "a port with an expression of its own cannot be connected by its name; give it"
                            + " a net");
            return;
        }
        boolean goesOn = port.direction() == null && isBare(port.portType());
        if (port.direction() == null && !goesOn) {
            // A type without a direction is inout, but for interfaces (23.2.2.3).
            if (!refuseType(port.portType(), port.IDENTIFIER().getText())) {
                say(
                        port.getStart(),
                        "port %s has no direction; write input, output or inout",
                        port.IDENTIFIER().getText());
            }
            return;
        }
        if (goesOn && lastDirection == null) {
            String name = name(port.IDENTIFIER().getText());
            if (open.contains(name)) {
                say(port.getStart(), "port %s is there twice", name);
            } else {
                open.add(name);
            }
            return;
        }
        if (!goesOn) {
            lastDirection = port.direction();
            lastType = port.portType();
        }
        add(lastDirection, lastType, port.IDENTIFIER(), port.range(), port);
    }

    private static boolean isBare(VerilogHeader.PortTypeContext type) {
        return type.getChildCount() == 0;
    }

    private void declaration(VerilogHeader.PortDeclarationContext declared) {
        if (declared.exception != null) {
            return;
        }
        // Ranges behind a name belong to it; children are in the order of the text.
        TerminalNode current = null;
        List<VerilogHeader.RangeContext> its = new ArrayList<>();
        for (int at = 0; at < declared.getChildCount(); at++) {
            if (declared.getChild(at) instanceof VerilogHeader.RangeContext range) {
                its.add(range);
            } else if (declared.getChild(at) instanceof TerminalNode node
                    && node.getSymbol().getType() == VerilogHeader.IDENTIFIER) {
                declared(declared, current, its);
                current = node;
                its = new ArrayList<>();
            }
        }
        declared(declared, current, its);
    }

    private void declared(
            VerilogHeader.PortDeclarationContext declared,
            TerminalNode name,
            List<VerilogHeader.RangeContext> ranges) {
        if (name != null && open.contains(name(name.getText()))) {
            add(declared.direction(), declared.portType(), name, ranges, declared);
        }
    }

    private void add(
            VerilogHeader.DirectionContext direction,
            VerilogHeader.PortTypeContext type,
            TerminalNode identifier,
            List<VerilogHeader.RangeContext> unpacked,
            ParserRuleContext around) {
        String name = name(identifier.getText());
        if (refuseType(type, name)) {
            return;
        }
        if (direction.REF() != null) {
            say(around.getStart(), "port %s is a reference; hardware has none", name);
            return;
        }
        if (!unpacked.isEmpty()) {
            say(around.getStart(), "port %s is an array of ports; make it one vector", name);
            return;
        }
        Module.Way way =
                direction.INPUT() != null
                        ? Module.Way.INPUT
                        : direction.OUTPUT() != null ? Module.Way.OUTPUT : Module.Way.INOUT;
        String width = width(type, name);
        if (width == null) {
            return;
        }
        HdlPort port =
                new HdlPort(
                        name,
                        way,
                        width,
                        type.SIGNING() != null && type.SIGNING().getText().equals("signed"),
                        line(identifier.getSymbol()),
                        comments.of(around));
        if (ports.put(name, port) != null) {
            say(around.getStart(), "port %s is declared twice", name);
        }
    }

    private boolean refuseType(VerilogHeader.PortTypeContext type, String name) {
        if (type.compound() != null) {
            say(type.getStart(), "port %s is a structure; make its members ports", name);
        } else if (type.INTERFACE() != null) {
            say(type.getStart(), "port %s is an interface; make its signals ports", name);
        } else if (type.userType() != null) {
            String its = type.userType().getText();
            say(
                    type.getStart(),
                    its.contains(".")
                            ? "port %s is the interface %s; make its signals ports"
                            : "port %s is of type %s, which is declared elsewhere; write its width,"
                                    + " as in logic [7:0]",
                    name,
                    its);
        } else if (type.REAL() != null) {
            say(
                    type.getStart(),
                    "port %s is a %s; hardware has vectors of bits",
                    name,
                    type.REAL().getText());
        } else {
            return false;
        }
        return true;
    }

    /** Packed dimensions are one vector, as wide as their product (7.4.1); null where one cannot be read. */
    private String width(VerilogHeader.PortTypeContext type, String name) {
        String width =
                type.ATOM() == null ? "1" : ATOM_BITS.getOrDefault(type.ATOM().getText(), "1");
        for (VerilogHeader.RangeContext range : type.range()) {
            String text = HdlExpression.of(range);
            String[] sides = HdlExpression.sides(text.substring(1, text.length() - 1));
            if (sides.length != 2 || sides[0].isEmpty() || sides[1].isEmpty()) {
                say(range.getStart(), "the width %s of port %s is no range [high:low]", text, name);
                return null;
            }
            String one = HdlExpression.width(sides[0], sides[1]);
            width = width.equals("1") ? one : "(%s) * (%s)".formatted(width, one);
        }
        return width;
    }
}
