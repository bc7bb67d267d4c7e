package polymetron.edit;

import java.lang.reflect.InvocationTargetException;
import java.lang.reflect.ParameterizedType;
import java.lang.reflect.RecordComponent;
import java.lang.reflect.Type;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import polymetron.address.Address;
import polymetron.library.Vlnv;

/** Edits of every form for the small demo station, right and wrong ones, made from the records themselves. */
public final class AnyEdits {
    /** What a component of that name could hold, right or wrong. */
    private static final Map<String, List<String>> BY_NAME =
            Map.ofEntries(
                    Map.entry(
                            "block",
                            List.of("cpu", "code", "console", "lamps", "gain", "interrupts", "b")),
                    Map.entry(
                            "name", List.of("cpu", "b", "c_2", "main", "Bad Name", "system", "_x")),
                    Map.entry("bus", List.of("system", "b", "main")),
                    Map.entry(
                            "busInterface",
                            List.of("data", "instruction", "port", "registers", "second")),
                    Map.entry("domain", List.of("main", "b", "other")),
                    Map.entry(
                            "parameter", List.of("SIZE", "WIDTH", "BAUD", "RESET_VECTOR", "NONE")),
                    Map.entry("outward", List.of("lines", "serial", "pads")),
                    Map.entry(
                            "protocol",
                            List.of("axi4-lite", "axi4", "apb", "wishbone-b4", "ahb-lite")),
                    Map.entry("source", List.of("irq", "timer", "out")),
                    Map.entry("sinkBlock", List.of("interrupts", "cpu", "lamps")),
                    Map.entry("into", List.of("main", "b", "other")),
                    Map.entry("clock", List.of("oscillator", "oscillator", "pll.out0", "quartz")),
                    Map.entry(
                            "reset",
                            List.of("reset_button", "reset_button", "dog.expired", "none")));

    private static final List<String> WORDS =
            List.of(
                    "x",
                    "",
                    " ",
                    "0",
                    "-1",
                    "inputs",
                    "registers",
                    "clk",
                    "rst",
                    "lamps",
                    "oscillator",
                    "reset_button",
                    "P1",
                    "LVCMOS33",
                    "a.b",
                    "../..",
                    "\u0000",
                    "ä",
                    "1 << 70",
                    "x".repeat(300));

    private static final List<String> TYPES =
            List.of(
                    "polymetron:memory:block-memory:1.1",
                    "polymetron:io:gpio:1.0",
                    "polymetron:serial:uart:1.0",
                    "polymetron:infrastructure:bridge:1.0",
                    "none:of:these:1.0");

    private static final List<String> BOARDS =
            List.of(
                    "polymetron:boards:foreland:1.0",
                    "polymetron:boards:foreland:1.0",
                    "polymetron:boards:terrace:1.0",
                    "none:of:these:1.0");

    private final Random random;

    public AnyEdits(long seed) {
        this.random = new Random(seed);
    }

    public Edit next() {
        return (Edit) any(Edit.class, "edit", 0);
    }

    private Object any(Type type, String name, int depth) {
        if (type instanceof ParameterizedType generic) {
            return anyOf(generic, name, depth);
        }
        Class<?> form = (Class<?>) type;
        boolean missing =
                !form.isPrimitive()
                        && !Edit.class.isAssignableFrom(form)
                        && random.nextInt(12) == 0;
        if (missing) {
            return null;
        }
        if (form == String.class) {
            List<String> likely = BY_NAME.getOrDefault(name, WORDS);
            return one(random.nextInt(6) == 0 ? WORDS : likely);
        }
        if (form == int.class || form == Integer.class) {
            return one(List.of(0, 1, 2, 8, 12, 31, 32, 64, 128, -1, Integer.MAX_VALUE));
        }
        if (form == long.class || form == Long.class) {
            return one(List.of(0L, 1L, 50_000_000L, -1L, Long.MAX_VALUE));
        }
        if (form == boolean.class || form == Boolean.class) {
            return random.nextBoolean();
        }
        if (form == Vlnv.class) {
            return Vlnv.parse(one(name.equals("board") ? BOARDS : TYPES));
        }
        if (form == Address.class) {
            return new Address(
                    one(
                            List.of(
                                    0L,
                                    0x8000L,
                                    0x1000_4000L,
                                    0x1000_0001L,
                                    0xFFFF_F000L,
                                    -1L,
                                    -4096L)));
        }
        if (form.isEnum()) {
            return one(List.of(form.getEnumConstants()));
        }
        if (form.isSealed()) {
            return any(one(List.of(form.getPermittedSubclasses())), name, depth + 1);
        }
        return record(form, depth);
    }

    private Object anyOf(ParameterizedType generic, String name, int depth) {
        int size = depth > 2 ? 0 : random.nextInt(3);
        Type[] of = generic.getActualTypeArguments();
        if (generic.getRawType() == Map.class) {
            Map<Object, Object> map = new HashMap<>();
            for (int at = 0; at < size; at++) {
                map.put(
                        one(BY_NAME.get("parameter")),
                        of[1] == String.class
                                ? one(List.of("1", "32", "1024", "x", ""))
                                : any(of[1], "pin", depth + 1));
            }
            return map;
        }
        List<Object> list = new ArrayList<>();
        for (int at = 0; at < size; at++) {
            list.add(any(of[0], name.replaceAll("s$", ""), depth + 1));
        }
        return list;
    }

    private Object record(Class<?> form, int depth) {
        RecordComponent[] components = form.getRecordComponents();
        // A component that its own constructor refuses is not an edit yet; try another.
        while (true) {
            Object[] values = new Object[components.length];
            Class<?>[] types = new Class<?>[components.length];
            for (int at = 0; at < values.length; at++) {
                types[at] = components[at].getType();
                values[at] =
                        any(components[at].getGenericType(), components[at].getName(), depth + 1);
            }
            try {
                var constructor = form.getDeclaredConstructor(types);
                constructor.setAccessible(true);
                return constructor.newInstance(values);
            } catch (InvocationTargetException refused) {
                if (!(refused.getCause() instanceof IllegalArgumentException)) {
                    throw new AssertionError(form + " of " + List.of(values), refused.getCause());
                }
            } catch (ReflectiveOperationException impossible) {
                throw new AssertionError(impossible);
            }
        }
    }

    private <T> T one(List<T> values) {
        return values.get(random.nextInt(values.size()));
    }
}
