package polymetron.library;

import java.math.BigInteger;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.NavigableMap;
import java.util.Objects;
import java.util.TreeMap;
import polymetron.expression.Expression;
import polymetron.json.DocumentText;

/**
 * Where registers and fields come to lie with one setting of the parameters: fields within their register, registers within
 * their range, nothing on top of each other unless software always knows which one is there.
 */
final class RegisterPlaces {
    private static final int LARGEST_COUNT = 1 << 20;

    /** A register at its place; a row is one piece. */
    private record Placed(
            int at, RegisterType type, int width, long offset, long count, long stride) {
        long end() {
            return offset + (count - 1) * stride + width / 8;
        }

        String place() {
            return "/registers/" + at;
        }

        boolean overlaps(Placed other) {
            if (offset >= other.end() || other.offset >= end()) {
                return false;
            }
            for (long index = 0; index < count; index++) {
                long first = offset + index * stride;
                long within = Math.floorMod(first - other.offset, other.stride);
                long row = Math.floorDiv(first - other.offset, other.stride);
                boolean onOne = row >= 0 && row < other.count && within < other.width / 8;
                boolean intoNext =
                        row + 1 >= 0 && row + 1 < other.count && within + width / 8 > other.stride;
                if (onOne || intoNext) {
                    return true;
                }
            }
            return false;
        }
    }

    private final BlockType type;
    private final DocumentText text;
    private final ParameterSettings.Setting setting;

    private RegisterPlaces(BlockType type, DocumentText text, ParameterSettings.Setting setting) {
        this.type = type;
        this.text = text;
        this.setting = setting;
    }

    /**
     * @throws polymetron.json.DocumentException when something lies outside or on something else
     */
    static void check(BlockType type, DocumentText text, ParameterSettings.Setting setting) {
        new RegisterPlaces(type, text, setting).check();
    }

    private void check() {
        List<Placed> placed = new ArrayList<>();
        NavigableMap<Long, List<Placed>> byOffset = new TreeMap<>();
        long longest = 0;
        for (int at = 0; at < type.registers().size(); at++) {
            RegisterType register = type.registers().get(at);
            if (isThere(register.when())) {
                Placed each = place(at, register);
                // Only what begins shortly before its end can reach into it: maps have thousands of
                // registers.
                List<Placed> near =
                        byOffset.subMap(each.offset() - longest, each.end()).values().stream()
                                .flatMap(List::stream)
                                .sorted(Comparator.comparingInt(Placed::at))
                                .toList();
                for (Placed other : near) {
                    apart(each, other, placed);
                }
                placed.add(each);
                byOffset.computeIfAbsent(each.offset(), offset -> new ArrayList<>()).add(each);
                longest = Math.max(longest, each.end() - each.offset());
                fields(each);
            }
        }
    }

    private Placed place(int at, RegisterType register) {
        int width = register.width() == null ? 32 : register.width();
        int bytes = width / 8;
        String place = "/registers/" + at;
        long offset = number(register.offset(), 0);
        long count = number(register.count(), 1);
        if (offset < 0 || offset % bytes != 0) {
            long next = Math.max(0, Math.ceilDiv(offset, bytes) * bytes);
            throw text.wrong(
                    place + "/offset",
                    "%s is at offset %s%s, no multiple of its %s bytes; 0x%x is the next one"
                            .formatted(register.name(), offset, setting.words(), bytes, next));
        }
        if (count < 1 || count > LARGEST_COUNT) {
            throw text.wrong(
                    place + "/count",
                    "%s has %s registers%s; it must be 1 to %s"
                            .formatted(register.name(), count, setting.words(), LARGEST_COUNT));
        }
        long stride = register.stride() == null ? bytes : register.stride();
        if (count > 1 && stride < bytes) {
            throw text.wrong(
                    place + "/stride",
                    "registers of %s bytes every %s bytes lie on each other; at least %s is right"
                            .formatted(bytes, stride, bytes));
        }
        Placed placed = new Placed(at, register, width, offset, count, stride);
        within(placed);
        return placed;
    }

    private void within(Placed placed) {
        BusInterfaceType target = target(placed.type());
        if (target == null) {
            throw text.wrong(
                    placed.place(),
                    "%s has no target to be behind; a target with usage registers is needed"
                            .formatted(placed.type().name()));
        }
        long size = number(target.size(), 0);
        if (isThere(target.when()) && placed.end() > size) {
            throw text.wrong(
                    placed.place() + "/offset",
                    "%s ends at 0x%x%s, and %s has 0x%x bytes; the last place for it is 0x%x"
                            .formatted(
                                    placed.type().name(),
                                    placed.end(),
                                    setting.words(),
                                    target.name(),
                                    size,
                                    Math.max(0, size - (placed.end() - placed.offset()))));
        }
    }

    private BusInterfaceType target(RegisterType register) {
        return type.busInterfaces().stream()
                .filter(
                        form ->
                                register.target() != null
                                        ? form.name().equals(register.target())
                                        : form.role() == Role.TARGET
                                                && form.usage() == BusInterfaceType.Usage.REGISTERS)
                .findFirst()
                .orElse(null);
    }

    private void apart(Placed one, Placed other, List<Placed> placed) {
        boolean isElsewhere = !Objects.equals(one.type().target(), other.type().target());
        if (isElsewhere || !one.overlaps(other)) {
            return;
        }
        Access mine = one.type().access();
        Access others = other.type().access();
        boolean byDirection =
                !mine.readable() && !others.writable() || !mine.writable() && !others.readable();
        if (!byDirection
                && !FieldConditions.exclude(type, setting.values(), one.type(), other.type())) {
            long free = placed.stream().mapToLong(Placed::end).max().orElse(0);
            throw text.wrong(
                    one.place() + "/offset",
                    "%s at 0x%x lies on %s at 0x%x%s; 0x%x is free, or let selectedBy of both tell"
                                    .formatted(
                                            one.type().name(),
                                            one.offset(),
                                            other.type().name(),
                                            other.offset(),
                                            setting.words(),
                                            Math.ceilDiv(free, 4) * 4)
                            + " which one is there");
        }
    }

    private void fields(Placed register) {
        long used = 0;
        List<FieldType> fields = register.type().fields();
        for (int at = 0; at < fields.size(); at++) {
            FieldType field = fields.get(at);
            if (!isThere(field.when())) {
                continue;
            }
            String place = register.place() + "/fields/" + at;
            long low = number(field.lowBit(), 0);
            long bits = number(field.width(), 1);
            String name = register.type().name() + "." + field.name();
            if (bits < 1 || bits > register.width()) {
                throw text.wrong(
                        place + "/width",
                        "%s has %s bits%s; it must be 1 to %s"
                                .formatted(name, bits, setting.words(), register.width()));
            }
            if (low < 0 || low + bits > register.width()) {
                throw text.wrong(
                        place + "/lowBit",
                        "%s has bits %s to %s%s, and the register has %s; lowBit is 0 to %s"
                                .formatted(
                                        name,
                                        low,
                                        low + bits - 1,
                                        setting.words(),
                                        register.width(),
                                        register.width() - bits));
            }
            long mask = (bits == 64 ? -1L : (1L << bits) - 1) << low;
            if ((used & mask) != 0) {
                throw text.wrong(
                        place + "/lowBit",
                        "%s has bit %s%s, which is another field's; bits %s are free"
                                .formatted(
                                        name,
                                        Long.numberOfTrailingZeros(used & mask),
                                        setting.words(),
                                        free(used, register.width())));
            }
            used |= mask;
            reset(place, name, field, bits);
        }
    }

    /** Runs of bits that no field has: {@code 7:4, 2}. */
    private static String free(long used, int width) {
        List<String> runs = new ArrayList<>();
        for (int high = width - 1; high >= 0; high--) {
            if ((used >>> high & 1) == 0) {
                int low = high;
                while (low > 0 && (used >>> low - 1 & 1) == 0) {
                    low--;
                }
                runs.add(low == high ? Integer.toString(low) : high + ":" + low);
                high = low;
            }
        }
        return runs.isEmpty() ? "none" : String.join(", ", runs);
    }

    private void reset(String place, String name, FieldType field, long bits) {
        if (field.reset() == null || namesMore(field.reset())) {
            return;
        }
        BigInteger reset = number(field.reset());
        BigInteger beyond = BigInteger.TWO.pow((int) bits);
        BigInteger lowest = beyond.shiftRight(1).negate();
        if (reset.compareTo(beyond) >= 0 || reset.compareTo(lowest) < 0) {
            throw text.wrong(
                    place + "/reset",
                    "%s is %s after reset%s; with %s bits it is %s to %s"
                            .formatted(
                                    name,
                                    reset,
                                    setting.words(),
                                    bits,
                                    lowest,
                                    beyond.subtract(BigInteger.ONE)));
        }
    }

    /** Whether a value after reset follows from more than parameters. */
    private static boolean namesMore(Expression reset) {
        return reset.names().contains("CLOCK") || reset.names().contains(FieldType.INDEX);
    }

    private boolean isThere(Expression when) {
        return when == null || when.evaluate(setting.values()).isTrue();
    }

    private long number(Expression expression, long otherwise) {
        return expression == null ? otherwise : number(expression).longValue();
    }

    private BigInteger number(Expression expression) {
        return expression.evaluate(setting.values()).asNumber();
    }
}
