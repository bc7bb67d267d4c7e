package polymetron.ownblock;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import polymetron.json.DocumentException;
import polymetron.json.Documents;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.JsonNodeFactory;
import tools.jackson.databind.node.ObjectNode;

/**
 * Registers as the rows of a spreadsheet: a row for each field, with tabs, commas or semicolons between the cells. The first row
 * names the columns; without such a row they are register, offset, field, bits, access, reset and explains. A row without a
 * register goes on with the one above. Accesses are the words of block types, or the usual short forms (RO, RW, WO, W1C, W1S,
 * RC; common practice, no source).
 */
public final class RegisterTable {
    private static final int MOST_ROWS = 100_000;
    private static final List<String> USUAL =
            List.of("register", "offset", "field", "bits", "access", "reset", "explains");

    /** What else columns may be called. */
    private static final Map<String, String> ALSO =
            Map.ofEntries(
                    Map.entry("name", "field"),
                    Map.entry("bit", "bits"),
                    Map.entry("bit range", "bits"),
                    Map.entry("address", "offset"),
                    Map.entry("address offset", "offset"),
                    Map.entry("software", "access"),
                    Map.entry("type", "access"),
                    Map.entry("default", "reset"),
                    Map.entry("reset value", "reset"),
                    Map.entry("description", "explains"),
                    Map.entry("meaning", "explains"),
                    Map.entry("rows", "count"),
                    Map.entry("array", "count"));

    private static final List<String> COLUMNS =
            List.of(
                    "register",
                    "offset",
                    "width",
                    "whole",
                    "count",
                    "field",
                    "bits",
                    "access",
                    "hardware",
                    "reset",
                    "explains");

    private static final Pattern BITS =
            Pattern.compile("\\[?\\s*(\\d{1,2})\\s*(?:(?::|-|\\.\\.)\\s*(\\d{1,2}))?\\s*]?");

    private static final Map<String, String[]> SHORT =
            Map.ofEntries(
                    Map.entry("ro", new String[] {"read-only"}),
                    Map.entry("r", new String[] {"read-only"}),
                    Map.entry("wo", new String[] {"write-only"}),
                    Map.entry("w", new String[] {"write-only"}),
                    Map.entry("rw", new String[] {"read-write"}),
                    Map.entry("r/w", new String[] {"read-write"}),
                    Map.entry("w1c", new String[] {"read-write", "onWrite", "clear-ones"}),
                    Map.entry("rw1c", new String[] {"read-write", "onWrite", "clear-ones"}),
                    Map.entry("w1s", new String[] {"read-write", "onWrite", "set-ones"}),
                    Map.entry("rw1s", new String[] {"read-write", "onWrite", "set-ones"}),
                    Map.entry("rc", new String[] {"read-only", "onRead", "clear"}),
                    Map.entry("w1p", new String[] {"write-only", "onWrite", "pulse"}),
                    Map.entry("pulse", new String[] {"write-only", "onWrite", "pulse"}),
                    Map.entry("clear-ones", new String[] {"read-write", "onWrite", "clear-ones"}),
                    Map.entry("set-ones", new String[] {"read-write", "onWrite", "set-ones"}),
                    Map.entry("read-only", new String[] {"read-only"}),
                    Map.entry("write-only", new String[] {"write-only"}),
                    Map.entry("read-write", new String[] {"read-write"}));

    private static final Set<String> YES = Set.of("yes", "true", "1", "x");
    private static final Set<String> NO = Set.of("", "no", "false", "0");
    private static final List<String> HARDWARE = List.of("none", "value", "load", "set", "count");

    private final ArrayNode registers = JsonNodeFactory.instance.arrayNode();
    private final Map<String, ObjectNode> byName = new HashMap<>();
    private List<String> columns = USUAL;
    private ObjectNode register;
    private int row;

    private RegisterTable() {}

    /**
     * Registers as a definition has them; places that no cell gives stay open.
     *
     * @return the text of a JSON array
     * @throws DocumentException when a row cannot be read; the message names the row, and says what would be right
     */
    public static String read(String text) {
        RegisterTable table = new RegisterTable();
        List<String> rows = text.lines().toList();
        if (rows.size() > MOST_ROWS) {
            throw new DocumentException("a table has at most %s rows".formatted(MOST_ROWS), "");
        }
        for (String each : rows) {
            table.row++;
            if (!each.isBlank()) {
                table.row(cells(each));
            }
        }
        if (table.registers.isEmpty()) {
            throw new DocumentException(
                    "there is no register; a row has " + String.join(", ", USUAL), "");
        }
        return Documents.write(table.registers);
    }

    private DocumentException wrong(String what, Object... values) {
        return new DocumentException(
                "row %s: %s".formatted(row, what.formatted(values)), "/" + (row - 1));
    }

    private static List<String> cells(String line) {
        char between = line.indexOf('\t') >= 0 ? '\t' : line.indexOf(';') >= 0 ? ';' : ',';
        List<String> cells = new ArrayList<>();
        StringBuilder cell = new StringBuilder();
        boolean quoted = false;
        for (int at = 0; at < line.length(); at++) {
            char sign = line.charAt(at);
            if (sign == '"' && quoted && at + 1 < line.length() && line.charAt(at + 1) == '"') {
                cell.append('"');
                at++;
            } else if (sign == '"' && (quoted || cell.toString().isBlank())) {
                quoted = !quoted;
            } else if (sign == between && !quoted) {
                cells.add(cell.toString().strip());
                cell.setLength(0);
            } else {
                cell.append(sign);
            }
        }
        cells.add(cell.toString().strip());
        return cells;
    }

    private void row(List<String> cells) {
        if (registers.isEmpty() && isHeading(cells)) {
            columns =
                    cells.stream()
                            .map(each -> each.toLowerCase(Locale.ROOT))
                            .map(each -> ALSO.getOrDefault(each, each))
                            .toList();
            for (String column : columns) {
                if (!COLUMNS.contains(column)) {
                    throw wrong(
                            "there is no column '%s'; there is %s",
                            column, String.join(", ", COLUMNS));
                }
            }
            return;
        }
        Map<String, String> named = new HashMap<>();
        for (int at = 0; at < cells.size(); at++) {
            if (at < columns.size()) {
                named.put(columns.get(at), cells.get(at));
            } else if (!cells.get(at).isEmpty()) {
                throw wrong("'%s' is in no column", cells.get(at));
            }
        }
        begin(named);
        if (!named.getOrDefault("field", "").isEmpty()) {
            field(named);
        }
    }

    private static boolean isHeading(List<String> cells) {
        return cells.stream()
                .map(each -> each.toLowerCase(Locale.ROOT))
                .anyMatch(each -> each.equals("register") || each.equals("bits"));
    }

    /** A name that is legal for a register or field. */
    static String name(String text) {
        return text.strip()
                .toUpperCase(Locale.ROOT)
                .replaceAll("[^A-Z0-9]+", "_")
                .replaceAll("^_|_$", "");
    }

    private void begin(Map<String, String> cells) {
        String name = name(cells.getOrDefault("register", ""));
        if (name.isEmpty()) {
            if (register == null) {
                throw wrong("the first row needs a register");
            }
            return;
        }
        register = byName.get(name);
        if (register == null) {
            register = registers.addObject();
            byName.put(name, register);
            register.put("name", name);
            number(cells, "offset", register, "offset");
            number(cells, "width", register, "width");
            whole(cells);
            number(cells, "count", register, "count");
            boolean hasField = !cells.getOrDefault("field", "").isEmpty();
            register.put("explains", hasField ? "" : cells.getOrDefault("explains", ""));
            register.putArray("fields");
        }
    }

    /** Whether both words of a register of 64 bits count at one time. */
    private void whole(Map<String, String> cells) {
        String said = cells.getOrDefault("whole", "").toLowerCase(Locale.ROOT);
        if (YES.contains(said)) {
            register.put("whole", true);
        } else if (!NO.contains(said)) {
            throw wrong("'%s' is neither yes nor no for whole", cells.get("whole"));
        }
    }

    /** Numbers are decimal, or as in 0x10, 10h or 'h10; anything else is an expression of the parameters. */
    private void number(Map<String, String> cells, String column, ObjectNode into, String key) {
        String text = cells.getOrDefault(column, "").replace("_", "");
        if (text.isEmpty()) {
            return;
        }
        Matcher hex =
                Pattern.compile("(?:0[xX]|'[hH])([0-9a-fA-F]{1,16})|([0-9][0-9a-fA-F]{0,15})[hH]")
                        .matcher(text);
        if (hex.matches()) {
            String digits = hex.group(1) != null ? hex.group(1) : hex.group(2);
            long value = Long.parseUnsignedLong(digits, 16);
            if (value >= 0) {
                into.put(key, value);
            } else {
                into.put(key, "64'h" + digits);
            }
        } else if (text.matches("[0-9]{1,18}")) {
            into.put(key, Long.parseLong(text));
        } else if (text.matches("[A-Z][A-Z0-9_ ()*/+-]*")) {
            into.put(key, cells.get(column));
        } else {
            throw wrong(
                    "'%s' is no number for %s; write 16, 0x10 or an expression of parameters",
                    cells.get(column), column);
        }
    }

    private void field(Map<String, String> cells) {
        ObjectNode field = ((ArrayNode) register.get("fields")).addObject();
        field.put("name", name(cells.get("field")));
        String bits = cells.getOrDefault("bits", "");
        if (!bits.isEmpty()) {
            Matcher range = BITS.matcher(bits);
            if (!range.matches()) {
                throw wrong("'%s' are no bits; write 7:0 or 3", bits);
            }
            int one = Integer.parseInt(range.group(1));
            int other = range.group(2) == null ? one : Integer.parseInt(range.group(2));
            field.put("lowBit", Math.min(one, other));
            if (one != other) {
                field.put("width", Math.abs(one - other) + 1);
            }
        }
        String access = cells.getOrDefault("access", "").toLowerCase(Locale.ROOT);
        String[] words = SHORT.get(access.isEmpty() ? "rw" : access);
        if (words == null) {
            throw wrong(
                    "'%s' is no access; write read-only, write-only, read-write, or RO, WO, RW,"
                            + " W1C, W1S, RC",
                    cells.get("access"));
        }
        field.put("software", words[0]);
        if (words.length > 1) {
            field.put(words[1], words[2]);
        }
        hardware(cells, field, words);
        number(cells, "reset", field, "reset");
        field.put("explains", cells.getOrDefault("explains", ""));
    }

    /** Where nothing is said, what software cannot write comes from the block, and what it clears the block sets. */
    private void hardware(Map<String, String> cells, ObjectNode field, String[] words) {
        String said = cells.getOrDefault("hardware", "").toLowerCase(Locale.ROOT);
        if (!said.isEmpty() && !HARDWARE.contains(said)) {
            throw wrong(
                    "'%s' is nothing that hardware does; there is %s",
                    said, String.join(", ", HARDWARE));
        }
        boolean clears = words.length > 1 && words[2].startsWith("clear");
        String its =
                said.isEmpty()
                        ? clears ? "set" : words[0].equals("read-only") ? "value" : "none"
                        : said;
        if (!its.equals("none")) {
            field.put("hardware", its);
        }
    }
}
