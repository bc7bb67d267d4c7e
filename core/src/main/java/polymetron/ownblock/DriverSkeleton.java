package polymetron.ownblock;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import polymetron.elaborate.BlockShape;
import polymetron.elaborate.Field;
import polymetron.elaborate.Register;
import polymetron.library.BlockType;
import polymetron.library.OnRead;
import polymetron.library.OnWrite;
import polymetron.text.TextWriter;

/**
 * A C header with a function for each thing that software does with a field: read it, write it while the fields beside it stay
 * as they are, clear or set what it reports. Fields that would lose something by it (an event that a one clears, a value that
 * is handed over) get a zero where a neighbour is written.
 */
public final class DriverSkeleton {
    private static final int WORD = 32;

    /** What functions of a field may be called before its name. */
    private static final List<String> VERBS = List.of("", "set_", "clear_", "raise_", "pulse_");

    private final String prefix;
    private final BlockShape shape;
    private final TextWriter out = TextWriter.indentedBy("    ");

    /** How many functions come to a name. */
    private final Map<String, Integer> called = new HashMap<>();

    private DriverSkeleton(BlockType type) {
        this.prefix = lower(type.identity().name());
        this.shape = new BlockShape(type, Map.of());
        called.put("word", 1);
        for (Register register : shape.registers()) {
            if (register.type().isWhole()) {
                for (String verb : List.of("", "set_")) {
                    called.merge(verb + lower(register.name()), 1, Integer::sum);
                }
                continue;
            }
            for (Field field : register.fields()) {
                for (String verb : VERBS) {
                    called.merge(verb + plainName(register, field), 1, Integer::sum);
                }
            }
        }
    }

    /** Name of the header of a block type. */
    public static String fileName(BlockType type) {
        return lower(type.identity().name()) + ".h";
    }

    private static String lower(String name) {
        String text = name.toLowerCase(Locale.ROOT).replaceAll("[^a-z0-9]+", "_");
        return text.matches("[0-9].*") ? "block_" + text : text;
    }

    /** Text of the header. */
    public static String of(BlockType type) {
        return new DriverSkeleton(type).write(type);
    }

    private String write(BlockType type) {
        String guard = "DRIVER_%s_H".formatted(prefix.toUpperCase(Locale.ROOT));
        out.line("/* %s: %s. */", type.title(), type.summary().replace("*/", "* /"));
        out.line("#ifndef %s", guard).line("#define %s", guard).blank();
        out.line("#include <stdint.h>").blank();
        out.line(
                "static inline volatile uint32_t *%s_word(uintptr_t base, uintptr_t offset)",
                prefix);
        out.open("{");
        out.line("return (volatile uint32_t *)(base + offset);");
        out.close("}");
        for (Register register : shape.registers()) {
            if (register.type().isWhole()) {
                whole(register);
                continue;
            }
            for (Field field : register.fields()) {
                field(register, field);
            }
        }
        out.blank().line("#endif");
        return out.text();
    }

    private record Place(Register register, Field field) {
        /** Offset of the word that holds the field, of the first register of a row. */
        long word() {
            return (register.offset() + field.lowBit() / 8) & ~3L;
        }

        int shift() {
            return (int) ((register.offset() + field.lowBit() / 8) % 4) * 8 + field.lowBit() % 8;
        }

        boolean isWithinWord() {
            return shift() + field.bits() <= WORD && register.stride() % 4 == 0;
        }

        long mask() {
            return field.bits() >= WORD ? 0xFFFF_FFFFL : (1L << field.bits()) - 1;
        }
    }

    /** A register of two words that are one: both are read and written, in the order in which they belong together. */
    private void whole(Register register) {
        String row = register.isRow() ? ", unsigned index" : "";
        String word =
                "*%s_word(base, %%su%s)"
                        .formatted(
                                prefix,
                                register.isRow()
                                        ? " + %su * index".formatted(register.stride())
                                        : "");
        String lower = word.formatted(register.offset());
        String upper = word.formatted(register.offset() + Integer.BYTES);
        if (register.access().readable()) {
            head(
                    "uint64_t %s_%s(uintptr_t base%s)".formatted(prefix, name("", register), row),
                    register.type().explains());
            out.line("uint32_t lower = %s;", lower);
            out.line("return ((uint64_t)%s << 32) | lower;", upper);
            out.close("}");
        }
        if (register.access().writable()) {
            head(
                    "void %s_%s(uintptr_t base%s, uint64_t value)"
                            .formatted(prefix, name("set_", register), row),
                    null);
            out.line("%s = (uint32_t)value;", lower);
            out.line("%s = (uint32_t)(value >> 32);", upper);
            out.close("}");
        }
    }

    /** Fields over two words, rows of registers that share words, and fields that cannot be written without taking a neighbour are the
     * user's to write. */
    private void field(Register register, Field field) {
        Place place = new Place(register, field);
        if (!place.isWithinWord()) {
            return;
        }
        String row = register.isRow() ? ", unsigned index" : "";
        String word =
                "*%s_word(base, %su%s)"
                        .formatted(
                                prefix,
                                place.word(),
                                register.isRow()
                                        ? " + %su * index".formatted(register.stride())
                                        : "");
        if (field.type().software().reads()) {
            head(
                    "uint32_t %s_%s(uintptr_t base%s)"
                            .formatted(prefix, name("", register, field), row),
                    field.type().explains());
            out.line("return %s%s;", shifted(word, place.shift()), masked(place));
            out.close("}");
        }
        if (!field.type().software().writes()
                || kept(register, field) != 0 && takes(register, field)) {
            return;
        }
        OnWrite onWrite = field.type().onWrite();
        if (onWrite == OnWrite.STORE || onWrite == OnWrite.HAND_OVER) {
            head(
                    "void %s_%s(uintptr_t base%s, uint32_t value)"
                            .formatted(prefix, name("set_", register, field), row),
                    null);
            String value = value("value", place);
            store(word, value, kept(register, field));
        } else {
            String verb =
                    switch (onWrite) {
                        case CLEAR_ONES -> "clear_";
                        case SET_ONES -> "raise_";
                        default -> "pulse_";
                    };
            head(
                    "void %s_%s(uintptr_t base%s, uint32_t ones)"
                            .formatted(prefix, name(verb, register, field), row),
                    null);
            String value = value("ones", place);
            store(word, value, kept(register, field));
        }
    }

    private void head(String declared, String explains) {
        out.blank();
        if (explains != null && !explains.isEmpty()) {
            out.line("/* %s */", explains.replace("*/", "* /").replace('\n', ' '));
        }
        out.line("static inline %s", declared);
        out.open("{");
    }

    private static String shifted(String word, int shift) {
        return shift == 0 ? word : "(%s >> %s)".formatted(word, shift);
    }

    /** An argument in its place in the word. */
    private static String value(String argument, Place place) {
        String cut = masked(place);
        String value = cut.isEmpty() ? argument : "(%s%s)".formatted(argument, cut);
        return place.shift() == 0 ? value : "%s << %s".formatted(value, place.shift());
    }

    private void store(String word, String value, long kept) {
        if (kept == 0) {
            out.line("%s = %s;", word, value);
        } else {
            out.line("%s = (%s & 0x%08Xu) | %s;", word, word, kept, bracketed(value));
        }
        out.close("}");
    }

    private static String bracketed(String value) {
        return value.contains("<<") ? "(%s)".formatted(value) : value;
    }

    private static String masked(Place place) {
        return place.field().bits() >= WORD ? "" : " & 0x%Xu".formatted(place.mask());
    }

    /** Whether reading the word of a field, to keep its neighbours, would take or clear something. */
    private static boolean takes(Register register, Field written) {
        Place place = new Place(register, written);
        return register.fields().stream()
                .anyMatch(
                        each ->
                                each.type().onRead() != OnRead.NONE
                                        && new Place(register, each).word() == place.word());
    }

    /** Verb, register and field; two underscores between them where another function could come to the same name. */
    private String name(String verb, Register register, Field field) {
        String name = verb + plainName(register, field);
        return called.get(name) > 1
                ? "%s_%s__%s"
                        .formatted(verb, lower(register.name()), lower(field.name()))
                        .replaceFirst("^_", "")
                : name;
    }

    private String name(String verb, Register register) {
        String name = verb + lower(register.name());
        return called.get(name) > 1
                ? "%s_%s__whole".formatted(verb, lower(register.name())).replaceFirst("^_", "")
                : name;
    }

    private static String plainName(Register register, Field field) {
        return lower(register.name()) + "_" + lower(field.name());
    }

    /** Bits of the same word that software stored and can read back without effect. */
    private static long kept(Register register, Field written) {
        long kept = 0;
        List<Field> others = new ArrayList<>(register.fields());
        others.remove(written);
        Place place = new Place(register, written);
        for (Field other : others) {
            Place its = new Place(register, other);
            if (its.isWithinWord()
                    && its.word() == place.word()
                    && other.type().software().reads()
                    && other.type().software().writes()
                    && other.type().onWrite() == OnWrite.STORE
                    && other.type().onRead() == OnRead.NONE) {
                kept |= its.mask() << its.shift();
            }
        }
        return kept;
    }
}
