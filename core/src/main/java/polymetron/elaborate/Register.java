package polymetron.elaborate;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.stream.IntStream;
import polymetron.library.Access;
import polymetron.library.RegisterType;

/**
 * A register, or a row of equal ones, with its numbers worked out.
 *
 * @param offset bytes from the base of the range
 * @param width bits: 8, 16, 32 or 64
 * @param count registers in the row; 1 for a single one
 */
public record Register(RegisterType type, long offset, int width, int count, List<Field> fields) {
    /** Name by which a reset value refers to the clock of its block, in hertz. */
    public static final String CLOCK = "CLOCK";

    private static final int MOST_SHOWN = 4;

    public String name() {
        return type.name();
    }

    /** What software may do with the register as a whole. */
    public Access access() {
        return type.access();
    }

    /** Whether the value after reset follows from the clock of the block. */
    public boolean resetFollowsClock() {
        return fields.stream()
                .anyMatch(
                        field ->
                                field.type().reset() != null
                                        && field.type().reset().names().contains(CLOCK));
    }

    /**
     * Value after reset.
     *
     * @param clockHz clock of the block in hertz; 0 when it has none
     * @param index place in a row of registers, from 0
     */
    public long reset(long clockHz, int index) {
        long value = 0;
        for (Field field : fields) {
            value |= field.reset(clockHz, index) << field.lowBit();
        }
        return value;
    }

    /** The value after reset for a person; of a row with several values the first ones. */
    public String resetText(long clockHz) {
        List<String> values =
                IntStream.range(0, count())
                        .mapToObj(index -> "0x%X".formatted(reset(clockHz, index)))
                        .toList();
        if (values.stream().distinct().count() <= 1) {
            return "0x%X".formatted(reset(clockHz, 0));
        }
        return values.size() <= MOST_SHOWN
                ? String.join(", ", values)
                : String.join(", ", values.subList(0, MOST_SHOWN)) + ", …";
    }

    /** When the register is the one at its address, for a person; null for always. */
    public String condition() {
        return type.selectedBy() == null ? null : type.selectedBy().toString();
    }

    /** What reading does besides, for a person; null for nothing. */
    public String readEffect() {
        List<String> effects = new ArrayList<>();
        for (Field field : fields) {
            switch (field.type().onRead()) {
                case NONE -> {}
                case CLEAR -> effects.add("clears " + field.name());
                case TAKE -> effects.add("takes " + field.name());
            }
        }
        return effects.isEmpty() ? null : String.join(", ", effects);
    }

    public Optional<Field> field(String name) {
        return fields.stream().filter(field -> field.name().equals(name)).findFirst();
    }

    public boolean isRow() {
        return count > 1;
    }

    public int stride() {
        return type.stride() == null ? width / 8 : type.stride();
    }

    /** Number of the row's first register. */
    public int first() {
        return type.first() == null ? 0 : type.first();
    }

    /** Name of one register of the row, or just the name. */
    public String name(int index) {
        return isRow() ? name() + "[" + (first() + index) + "]" : name();
    }

    /** Index of the register in the row that an offset within the range falls into, or -1. */
    public int indexAt(long byteOffset) {
        long within = byteOffset - offset;
        if (within < 0 || within >= (long) (count - 1) * stride() + width / 8) {
            return -1;
        }
        return within % stride() < width / 8 ? (int) (within / stride()) : -1;
    }

    /** Byte offset of one of a row. */
    public long offset(int index) {
        return offset + (long) index * stride();
    }
}
