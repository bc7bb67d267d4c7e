package polymetron.bench.block;

import java.math.BigInteger;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import polymetron.expression.Expression;
import polymetron.expression.Value;
import tools.jackson.databind.JsonNode;

/**
 * What software must see of the registers behind one target, worked out from the words of the definition file and
 * {@code docs/registers.md} alone, by nothing that the bank uses. Of a field that the block itself changes it knows only where
 * its bits are.
 */
final class RegisterReference {
    /** One field of one register of a row. */
    final class Cell {
        final String name;
        final JsonNode field;
        final long offset;
        final int low;
        final long bits;
        final long reset;
        final String selectedBy;
        long value;

        private Cell(JsonNode register, JsonNode field, int index) {
            this.field = field;
            long width = register.path("width").asLong(32);
            offset =
                    number(register, "offset", 0)
                            + index * register.path("stride").asLong(width / 8);
            low = (int) number(field, "lowBit", 0);
            long count = number(field, "width", 1);
            long ones = count >= 64 ? -1 : (1L << count) - 1;
            bits =
                    field.has("implemented")
                            ? ones & evaluate(field.path("implemented").asString(), index)
                            : ones;
            JsonNode initial = field.path("reset");
            reset =
                    bits
                            & (initial.isString()
                                    ? evaluate(initial.stringValue(), index)
                                    : initial.asLong());
            selectedBy = register.path("selectedBy").asString(null);
            name = register.path("name").asString() + "." + field.path("name").asString();
            value = reset;
        }

        boolean is(String property, String word) {
            return field.path(property).asString("").equals(word);
        }

        boolean reads() {
            return !is("software", "write-only");
        }

        boolean writes() {
            return !is("software", "read-only");
        }

        /** Whether nothing but software changes it. */
        boolean isSoftwares() {
            return field.path("hardware").asString("none").equals("none");
        }

        /** What software reads; only where the block does not change it. */
        long seen() {
            boolean keepsNothing =
                    writes() && (is("onWrite", "pulse") || is("onWrite", "hand-over"));
            return keepsNothing ? 0 : value;
        }

        /** The place of bits of the field in a word of the bus. */
        int inWord(long fieldBits, int word) {
            long shift = 8 * (offset - word) + low;
            if (shift >= 32 || shift <= -64) {
                return 0;
            }
            return (int) (shift >= 0 ? fieldBits << shift : fieldBits >>> -shift);
        }

        long outOfWord(int bits32, int word) {
            long shift = 8 * (offset - word) + low;
            long wide = Integer.toUnsignedLong(bits32);
            return (shift >= 0 ? wide >>> shift : wide << -shift) & bits;
        }

        boolean isIn(int word) {
            return inWord(bits, word) != 0;
        }
    }

    final List<Cell> cells = new ArrayList<>();
    private final Map<String, Cell> byName = new TreeMap<>();
    private final Map<String, Value> parameters;
    private final long clockHz;

    /**
     * @param target bus interface of which the registers are; {@code isFirst} when registers that name none are there
     */
    RegisterReference(
            JsonNode definition,
            String target,
            boolean isFirst,
            Map<String, Value> parameters,
            long clockHz) {
        this.parameters = parameters;
        this.clockHz = clockHz;
        for (JsonNode register : definition.path("registers")) {
            boolean isHere = register.path("target").asString(isFirst ? target : "").equals(target);
            if (!isHere || number(register, "when", 1) == 0) {
                continue;
            }
            for (int index = 0; index < number(register, "count", 1); index++) {
                for (JsonNode field : register.path("fields")) {
                    if (number(field, "when", 1) != 0) {
                        Cell cell = new Cell(register, field, index);
                        cells.add(cell);
                        byName.putIfAbsent(cell.name, cell);
                    }
                }
            }
        }
    }

    private long number(JsonNode node, String key, long otherwise) {
        JsonNode value = node.path(key);
        return value.isMissingNode()
                ? otherwise
                : value.isString() ? evaluate(value.stringValue(), 0) : value.asLong();
    }

    private long evaluate(String expression, int index) {
        return Expression.parse(expression)
                .evaluate(
                        name ->
                                switch (name) {
                                    case "CLOCK" -> new Value.Real(clockHz);
                                    case "INDEX" ->
                                            Value.Bits.of(BigInteger.valueOf(index), 32, true);
                                    default -> parameters.get(name);
                                })
                .asNumber()
                .longValue();
    }

    /** Whether a condition of fields holds. */
    boolean holds(String condition) {
        return condition != null
                && Expression.parse(condition)
                        .evaluate(
                                name -> {
                                    Cell cell = byName.get(name);
                                    long value = cell == null ? 0 : cell.value;
                                    return Value.Bits.of(BigInteger.valueOf(value), 64, false);
                                })
                        .isTrue();
    }

    boolean isSelected(Cell cell) {
        return cell.selectedBy == null || holds(cell.selectedBy);
    }

    /** Bits of a word of which the value is known, besides those of no field that is read. */
    int known(int word) {
        int unknown = 0;
        for (Cell cell : cells) {
            if (cell.isIn(word) && cell.reads() && isSelected(cell) && !cell.isSoftwares()) {
                unknown |= cell.inWord(cell.bits, word);
            }
        }
        return ~unknown;
    }

    /** What software reads of a word, where it is known. */
    int seen(int word) {
        int seen = 0;
        for (Cell cell : cells) {
            if (cell.isIn(word) && cell.reads() && isSelected(cell)) {
                seen |= cell.inWord(cell.seen(), word);
            }
        }
        return seen;
    }

    /** What reading does. */
    void read(int word) {
        List<Cell> there =
                cells.stream().filter(cell -> cell.isIn(word) && isSelected(cell)).toList();
        there.stream().filter(cell -> cell.is("onRead", "clear")).forEach(cell -> cell.value = 0);
    }

    void write(int word, int value, int mask) {
        List<Cell> there =
                cells.stream()
                        .filter(cell -> cell.isIn(word) && cell.writes() && isSelected(cell))
                        .filter(cell -> !holds(cell.field.path("lockedBy").asString(null)))
                        .toList();
        for (Cell cell : there) {
            long written = cell.outOfWord(value, word);
            long touched = cell.outOfWord(mask, word);
            switch (cell.field.path("onWrite").asString("store")) {
                case "store" -> cell.value = cell.value & ~touched | written & touched;
                case "clear-ones" -> cell.value &= ~(written & touched);
                case "set-ones" -> cell.value |= written & touched;
                case "pulse", "hand-over" -> {}
                default -> throw new AssertionError(cell.field.path("onWrite"));
            }
        }
    }
}
