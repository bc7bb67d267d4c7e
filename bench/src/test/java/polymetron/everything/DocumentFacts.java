package polymetron.everything;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import tools.jackson.databind.JsonNode;

/**
 * What follows from a platform document and the definitions of its block types, worked out anew from their JSON. Nothing of
 * the product's own computation is used here: this is what it is compared with.
 */
final class DocumentFacts {
    /** A target that a program sees. */
    record Target(
            JsonNode block, JsonNode type, JsonNode form, long base, long size, String label) {
        String name() {
            return block.path("name").asString();
        }

        String macro() {
            return label.toUpperCase(Locale.ROOT).replace('.', '_');
        }

        String blockMacro() {
            return name().toUpperCase(Locale.ROOT);
        }

        boolean isMemory() {
            return form.path("usage").asString("").equals("memory");
        }

        String interfaceName() {
            return form.path("name").asString();
        }
    }

    /** A hart: its block, its number within it, and what mhartid is. */
    record Hart(JsonNode block, JsonNode role, int index, long id) {
        String name() {
            return block.path("name").asString();
        }
    }

    /** A program: its harts, and what it sees. */
    record Program(String name, List<Hart> harts, List<Target> targets) {}

    final JsonNode platform;
    final JsonNode board;
    final Map<String, JsonNode> types;
    final VerilogConstants constants;
    private final Path folder;
    private final Map<String, Long> clocked = new HashMap<>();
    private final Map<String, JsonNode> blocks = new LinkedHashMap<>();

    DocumentFacts(JsonNode platform, JsonNode board, Map<String, JsonNode> types, Path folder) {
        this.folder = folder;
        this.platform = platform;
        this.board = board;
        this.types = types;
        this.constants = new VerilogConstants(folder);
        for (JsonNode block : platform.path("blocks")) {
            blocks.put(block.path("name").asString(), block);
        }
        blocks.values().forEach(this::wantAll);
    }

    JsonNode type(JsonNode block) {
        return types.get(block.path("type").asString());
    }

    JsonNode block(String name) {
        return blocks.get(name);
    }

    Iterable<JsonNode> blocks() {
        return blocks.values();
    }

    /** Every capability of a sort that a block has. */
    List<JsonNode> provides(JsonNode block, String sort) {
        List<JsonNode> found = new ArrayList<>();
        for (JsonNode each : type(block).path("provides")) {
            if (each.has(sort)) {
                found.add(each.path(sort));
            }
        }
        return found;
    }

    private Map<String, String> parameters(JsonNode block) {
        Map<String, String> parameters = new LinkedHashMap<>();
        for (JsonNode parameter : type(block).path("parameters")) {
            String own = parameter.path("name").asString();
            String value = block.path("parameters").path(own).asString(null);
            String text = value == null ? parameter.path("initial").asString("") : value;
            boolean isText =
                    List.of("choice", "text", "numbers")
                            .contains(parameter.path("form").asString());
            parameters.put(own, isText ? "\"" + text + "\"" : text);
        }
        return parameters;
    }

    private void wantAll(JsonNode block) {
        String name = block.path("name").asString();
        Map<String, String> parameters = parameters(block);
        constants.block(name, parameters);
        parameters.keySet().forEach(parameter -> constants.want(name, parameter));
        wantExpressions(name, type(block));
    }

    /** Every expression of a definition that does not need the clock. */
    private void wantExpressions(String name, JsonNode node) {
        for (String group :
                List.of("busInterfaces", "registers", "interrupts", "provides", "clockOutputs")) {
            walk(name, node.path(group));
        }
        walk(name, node.path("bridge"));
    }

    private static final List<String> EXPRESSIONS =
            List.of(
                    "size",
                    "when",
                    "writable",
                    "base",
                    "offset",
                    "count",
                    "reset",
                    "lowBit",
                    "width",
                    "first",
                    "id",
                    "trap",
                    "hertz",
                    "divider",
                    "harts",
                    "sources",
                    "priorityBits",
                    "baud",
                    "source",
                    "bytes",
                    "multiply",
                    "divide",
                    "origin",
                    "addressWidth",
                    "edges",
                    "line");

    private void walk(String name, JsonNode node) {
        if (node.isArray()) {
            node.forEach(each -> walk(name, each));
        }
        if (node.isObject()) {
            node.properties()
                    .forEach(
                            entry -> {
                                JsonNode value = entry.getValue();
                                boolean isFormula =
                                        EXPRESSIONS.contains(entry.getKey())
                                                && (value.isString() || value.isNumber())
                                                && !value.asString().contains("CLOCK")
                                                && !isWord(entry.getKey(), value);
                                if (isFormula) {
                                    constants.want(name, value.asString());
                                } else {
                                    walk(name, value);
                                }
                            });
        }
    }

    /** A kind of interrupt line is called like the size of a cache's line, a name like the number of a source. */
    private static boolean isWord(String key, JsonNode value) {
        return List.of("line", "source").contains(key)
                && value.isString()
                && value.asString().matches("[a-z][a-z0-9]*");
    }

    /** The value of a register after reset, which may follow from the clock: then it is worked out with that in a run of its own. */
    long reset(Target target, JsonNode register) {
        long value = 0;
        for (JsonNode field : register.path("fields")) {
            long bits = number(target.block(), field.path("width"), 1);
            long ones = bits >= 64 ? -1L : (1L << bits) - 1;
            value |=
                    (resetOf(target, field) & ones)
                            << number(target.block(), field.path("lowBit"), 0);
        }
        return value;
    }

    private long resetOf(Target target, JsonNode field) {
        String text = field.path("reset").asString("0");
        if (!text.contains("CLOCK")) {
            return number(target.block(), field.path("reset"), 0);
        }
        return clocked.computeIfAbsent(
                target.name() + text,
                key -> {
                    VerilogConstants run = new VerilogConstants(folder);
                    Map<String, String> parameters = parameters(target.block());
                    parameters.put("CLOCK", hertz(target.block()) + ".0");
                    run.block(target.name(), parameters);
                    run.want(target.name(), text);
                    return run.number(target.name(), text);
                });
    }

    long number(JsonNode block, JsonNode expression, long otherwise) {
        return expression.isMissingNode() || expression.isNull()
                ? otherwise
                : constants.number(block.path("name").asString(), expression.asString());
    }

    boolean isThere(JsonNode block, JsonNode when) {
        return number(block, when, 1) != 0;
    }

    // --- clocks --------------------------------------------------------------------------------

    long hertz(String domain) {
        for (JsonNode each : platform.path("domains")) {
            if (!each.path("name").asString().equals(domain)) {
                continue;
            }
            String clock = each.path("clock").asString("");
            for (JsonNode source : board.path("clocks")) {
                if (source.path("name").asString().equals(clock)) {
                    return source.path("frequencyHz").asLong();
                }
            }
            int dot = clock.indexOf('.');
            JsonNode maker = dot < 0 ? null : block(clock.substring(0, dot));
            return maker == null ? 0 : made(maker, clock.substring(dot + 1));
        }
        return 0;
    }

    private long made(JsonNode maker, String output) {
        for (JsonNode each : type(maker).path("clockOutputs")) {
            if (each.path("name").asString().equals(output)) {
                long multiply = number(maker, each.path("multiply"), 1);
                if (!each.has("from")) {
                    return multiply;
                }
                String domain =
                        maker.path("domains").path(each.path("from").asString()).asString("");
                return Math.round(
                        (double) hertz(domain) * multiply / number(maker, each.path("divide"), 1));
            }
        }
        return 0;
    }

    /** Clock of a block: that of its first input. */
    long hertz(JsonNode block) {
        JsonNode clocks = type(block).path("clocks");
        return clocks.isEmpty()
                ? 0
                : hertz(
                        block.path("domains")
                                .path(clocks.get(0).path("name").asString())
                                .asString(""));
    }

    long hertz(JsonNode block, JsonNode stated) {
        return stated.isMissingNode() ? hertz(block) : number(block, stated, 0);
    }

    // --- address maps --------------------------------------------------------------------------

    /** What an initiator sees, by ascending address: on its bus, through bridges, and inside its own block. */
    List<Target> seen(JsonNode block, String initiator) {
        JsonNode form = form(type(block), initiator);
        List<Target> found = new ArrayList<>();
        JsonNode at = block.path("attachments").path(initiator);
        long limit = (1L << number(block, form.path("addressWidth"), 62)) - 1;
        if (at.has("bus")) {
            look(at.path("bus").asString(), 0, 0, (1L << 62) - 1, 0, found);
            if (form.has("window")) {
                long base = number(block, form.path("window").path("base"), 0);
                long size = number(block, form.path("window").path("size"), 0);
                found.removeIf(
                        target ->
                                target.base() < base
                                        || target.base() + target.size() > base + size);
            }
        }
        for (JsonNode inside : type(block).path("busInterfaces")) {
            if (inside.path("seenBy").asString("").equals(initiator)) {
                found.add(
                        target(
                                block,
                                inside,
                                number(block, inside.path("base"), 0),
                                number(block, inside.path("size"), 0)));
            }
        }
        List<String> hidden = new ArrayList<>();
        at.path("hidden").forEach(each -> hidden.add(each.asString()));
        List<Target> visible = new ArrayList<>();
        for (Target each : found) {
            String ref = each.name() + "." + each.interfaceName();
            if (each.base() <= limit && !hidden.contains(ref)) {
                long size = Math.min(each.size(), limit - each.base() + 1);
                visible.add(
                        new Target(
                                each.block(),
                                each.type(),
                                each.form(),
                                each.base(),
                                size,
                                each.label()));
            }
        }
        visible.sort(Comparator.comparingLong(Target::base));
        return visible;
    }

    private void look(
            String bus, int depth, long first, long last, long shift, List<Target> found) {
        for (JsonNode block : blocks()) {
            for (JsonNode form : type(block).path("busInterfaces")) {
                JsonNode at = block.path("attachments").path(form.path("name").asString());
                boolean isHere =
                        form.path("role").asString().equals("target")
                                && at.path("bus").asString("").equals(bus)
                                && at.has("base");
                if (!isHere || depth > 8) {
                    continue;
                }
                long base = address(at.path("base").asString());
                long size = number(block, form.path("size"), 0);
                JsonNode bridge = type(block).path("bridge");
                boolean isWindow =
                        bridge.path("upstream").asString("").equals(form.path("name").asString());
                if (isWindow) {
                    window(block, bridge, base, size, depth, first, last, shift, found);
                } else if (base >= first && base <= last) {
                    long seen = Math.min(size, last - base + 1);
                    found.add(target(block, form, base + shift, seen));
                }
            }
        }
    }

    private void window(
            JsonNode block,
            JsonNode bridge,
            long base,
            long size,
            int depth,
            long first,
            long last,
            long shift,
            List<Target> found) {
        JsonNode behind = block.path("attachments").path(bridge.path("downstream").asString());
        if (!behind.has("bus") || base + size <= first || base > last) {
            return;
        }
        long origin = number(block, bridge.path("origin"), 0);
        look(
                behind.path("bus").asString(),
                depth + 1,
                origin + Math.max(first, base) - base,
                origin + Math.min(last, base + size - 1) - base,
                shift + base - origin,
                found);
    }

    private Target target(JsonNode block, JsonNode form, long base, long size) {
        int targets = 0;
        for (JsonNode each : type(block).path("busInterfaces")) {
            boolean counts =
                    each.path("role").asString().equals("target")
                            && isThere(block, each.path("when"));
            targets += counts ? 1 : 0;
        }
        String name = block.path("name").asString();
        String label = targets > 1 ? name + "." + form.path("name").asString() : name;
        return new Target(block, type(block), form, base, size, label);
    }

    static JsonNode form(JsonNode type, String name) {
        for (JsonNode each : type.path("busInterfaces")) {
            if (each.path("name").asString().equals(name)) {
                return each;
            }
        }
        return tools.jackson.databind.node.MissingNode.getInstance();
    }

    static long address(String text) {
        return Long.parseUnsignedLong(text.replace("_", "").replace("0x", ""), 16);
    }

    // --- programs ------------------------------------------------------------------------------

    List<Hart> harts() {
        List<Hart> harts = new ArrayList<>();
        for (JsonNode block : blocks()) {
            for (JsonNode role : provides(block, "hart")) {
                long count = number(block, role.path("count"), 1);
                for (int index = 0; index < count; index++) {
                    harts.add(
                            new Hart(
                                    block, role, index, number(block, role.path("id"), 0) + index));
                }
            }
        }
        return harts;
    }

    /** Harts that start at the same place of the same memory share a program. */
    List<Program> programs() {
        Map<String, List<Hart>> groups = new LinkedHashMap<>();
        for (Hart hart : harts()) {
            boolean isOnBus =
                    hart.block().path("attachments").has(hart.role().path("data").asString())
                            || !seen(hart.block(), hart.role().path("data").asString()).isEmpty();
            if (isOnBus) {
                groups.computeIfAbsent(start(hart), key -> new ArrayList<>()).add(hart);
            }
        }
        List<Program> programs = new ArrayList<>();
        for (List<Hart> group : groups.values()) {
            Hart first = group.getFirst();
            programs.add(
                    new Program(
                            first.name(),
                            group,
                            seen(first.block(), first.role().path("data").asString())));
        }
        return programs;
    }

    private String start(Hart hart) {
        long reset = reset(hart);
        for (Target target : seen(hart.block(), hart.role().path("fetch").asString())) {
            boolean isStart =
                    target.isMemory()
                            && target.form().path("executable").asBoolean()
                            && reset >= target.base()
                            && reset - target.base() < target.size();
            if (isStart) {
                return "%s %x %x %s"
                        .formatted(target.name(), target.base(), reset, reading(hart, target));
            }
        }
        return hart.name();
    }

    private String reading(Hart hart, Target program) {
        return seen(hart.block(), hart.role().path("data").asString()).stream()
                        .anyMatch(
                                each ->
                                        each.name().equals(program.name())
                                                && each.base() == program.base())
                ? "read"
                : "hidden";
    }

    long reset(Hart hart) {
        return number(hart.block(), hart.role().path("reset"), 0);
    }

    /** The registers of a target that are there, in the order of the definition. */
    List<JsonNode> registers(Target target) {
        String first = "";
        for (JsonNode form : target.type().path("busInterfaces")) {
            boolean isFirst =
                    first.isEmpty()
                            && form.path("role").asString().equals("target")
                            && form.path("usage").asString("").equals("registers")
                            && isThere(target.block(), form.path("when"));
            first = isFirst ? form.path("name").asString() : first;
        }
        List<JsonNode> found = new ArrayList<>();
        for (JsonNode register : target.type().path("registers")) {
            if (register.path("target").asString(first).equals(target.interfaceName())
                    && isThere(target.block(), register.path("when"))) {
                found.add(register);
            }
        }
        return found;
    }

    /** Bits of the fields of a register, by name: lowest bit and number of bits. */
    Map<String, int[]> fields(Target target, JsonNode register) {
        Map<String, int[]> fields = new LinkedHashMap<>();
        for (JsonNode field : register.path("fields")) {
            fields.put(
                    field.path("name").asString(),
                    new int[] {
                        (int) number(target.block(), field.path("lowBit"), 0),
                        (int) number(target.block(), field.path("width"), 1)
                    });
        }
        return fields;
    }

    static Map<String, JsonNode> byName(JsonNode array) {
        Map<String, JsonNode> found = new HashMap<>();
        array.forEach(each -> found.put(each.path("name").asString(), each));
        return found;
    }
}
