package polymetron.ownblock;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.regex.Pattern;
import polymetron.library.BlockType;
import polymetron.library.FieldType;
import polymetron.library.RegisterType;

/**
 * Names in a user's definition: they become names in Verilog, VHDL, C and devicetree, so that they have to be
 * legal in all of them, and to stay apart when they are put together.
 */
public final class DefinitionNames {
    private static final Pattern UPPER = Pattern.compile("[A-Z](_?[A-Z0-9]+)*");
    private static final Pattern LOWER = Pattern.compile("[a-z](_?[a-z0-9]+)*");
    private static final Pattern COMPATIBLE =
            Pattern.compile("[a-z0-9][a-z0-9.-]*(,[a-z0-9][a-z0-9.+_-]*)?");
    private static final Pattern NODE = Pattern.compile("[a-z][a-z0-9,._+-]{0,30}");
    private static final Pattern PROPERTY = Pattern.compile("[A-Za-z0-9,._+?#-]{1,31}");
    private static final int LONGEST = 32;

    private final List<BlockProblem> problems = new ArrayList<>();
    private boolean clash;

    private DefinitionNames() {}

    /** Whether two names come to one in hardware, so that no module can be made; {@link OwnBlockChecks} says which. */
    public static boolean clash(BlockType type) {
        DefinitionNames names = new DefinitionNames();
        names.check(type);
        return names.clash;
    }

    static List<BlockProblem> problems(BlockType type) {
        DefinitionNames names = new DefinitionNames();
        names.check(type);
        return names.problems;
    }

    private void say(String at, String what, Object... values) {
        problems.add(new BlockProblem("/definition" + at, what.formatted(values)));
    }

    private void upper(String at, String name) {
        if (!UPPER.matcher(name).matches() || name.length() > LONGEST) {
            say(
                    at,
                    "'%s' is no name of upper-case letters, digits and single underscores that"
                            + " begins with a letter, 32 at most",
                    name);
        }
    }

    private void lower(String at, String name) {
        if (!LOWER.matcher(name).matches() || name.length() > LONGEST) {
            say(
                    at,
                    "'%s' is no name of lower-case letters, digits and single underscores that"
                            + " begins with a letter, 32 at most",
                    name);
        }
    }

    private void check(BlockType type) {
        lower("/defaultName", type.defaultName());
        each("/parameters", type.parameters().stream().map(each -> each.name()).toList(), true);
        List<String> ports = new ArrayList<>();
        type.clocks().forEach(each -> ports.add(each.name()));
        each("/clocks", ports, false);
        each("/resets", type.resets().stream().map(each -> each.name()).toList(), false);
        each(
                "/busInterfaces",
                type.busInterfaces().stream().map(each -> each.name()).toList(),
                false);
        each("/streams", type.streams().stream().map(each -> each.name()).toList(), false);
        each("/interrupts", type.interrupts().stream().map(each -> each.name()).toList(), false);
        each("/outward", type.outward().stream().map(each -> each.name()).toList(), false);
        for (int at = 0; at < type.outward().size(); at++) {
            each(
                    "/outward/%s/ports".formatted(at),
                    type.outward().get(at).ports().stream().map(each -> each.name()).toList(),
                    false);
        }
        together(type);
        registers(type);
        software(type);
    }

    private void each(String place, List<String> names, boolean isUpper) {
        for (int at = 0; at < names.size(); at++) {
            String where = "%s/%s/name".formatted(place, at);
            if (isUpper) {
                upper(where, names.get(at));
            } else {
                lower(where, names.get(at));
            }
            if (names.indexOf(names.get(at)) < at) {
                clash = true;
                say(where, "there are two named %s", names.get(at));
            }
        }
    }

    /** Clocks, resets, interrupts and lines are ports of one module. */
    private void together(BlockType type) {
        Map<String, String> owners = new HashMap<>();
        type.clocks().forEach(each -> own(owners, each.name(), "a clock"));
        type.resets().forEach(each -> own(owners, each.name(), "a reset"));
        type.interrupts().forEach(each -> own(owners, each.name(), "an interrupt"));
        type.outward()
                .forEach(form -> form.ports().forEach(port -> own(owners, port.name(), "a line")));
    }

    private void own(Map<String, String> owners, String name, String what) {
        String other = owners.putIfAbsent(name, what);
        if (other != null) {
            clash = true;
            say("", "%s is %s and %s; one of them needs another name", name, other, what);
        }
    }

    private void registers(BlockType type) {
        Map<String, String> joined = new HashMap<>();
        for (int at = 0; at < type.registers().size(); at++) {
            RegisterType register = type.registers().get(at);
            upper("/registers/%s/name".formatted(at), register.name());
            for (int index = 0; index < register.fields().size(); index++) {
                FieldType field = register.fields().get(index);
                String place = "/registers/%s/fields/%s/name".formatted(at, index);
                upper(place, field.name());
                String name = register.name() + "_" + field.name();
                String other = joined.putIfAbsent(name, register.name() + "." + field.name());
                if (other != null) {
                    clash = true;
                    say(
                            place,
                            "%s.%s and %s are both called %s in hardware; rename one of them",
                            register.name(),
                            field.name(),
                            other,
                            name);
                }
            }
        }
    }

    private void software(BlockType type) {
        if (type.software() == null) {
            return;
        }
        for (String compatible : type.software().compatible()) {
            if (!COMPATIBLE.matcher(compatible).matches()) {
                say(
                        "/software/compatible",
                        "'%s' is no compatible of a devicetree; write vendor,name-1.0",
                        compatible);
            }
        }
        String node = type.software().node();
        if (node != null && !NODE.matcher(node).matches()) {
            say("/software/node", "'%s' is no name of a devicetree node", node);
        }
        type.software()
                .properties()
                .forEach(
                        each -> {
                            if (!PROPERTY.matcher(each.name()).matches()) {
                                say(
                                        "/software/properties",
                                        "'%s' is no name of a devicetree property",
                                        each.name());
                            }
                        });
    }
}
