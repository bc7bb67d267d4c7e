package polymetron.ownblock;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.function.Function;
import polymetron.library.BlockType;
import polymetron.library.FieldType;
import polymetron.library.RegisterType;

/**
 * What others see of a block type that is not as it was: a platform or a program that was made for the one may not work with the
 * other. Such a change is for a new version; what a block does inside, and what is said of it, may change within one.
 */
public final class InterfaceChanges {
    private final List<String> changes = new ArrayList<>();

    private InterfaceChanges() {}

    /** What is different, in words; empty where one can stand for the other. */
    public static List<String> between(BlockType before, BlockType now) {
        InterfaceChanges found = new InterfaceChanges();
        found.lists(
                "parameter",
                before.parameters(),
                now.parameters(),
                each -> each.name(),
                each ->
                        each.form()
                                + " "
                                + each.minimum()
                                + " "
                                + each.maximum()
                                + " "
                                + each.choices());
        found.lists(
                "clock input",
                before.clocks(),
                now.clocks(),
                each -> each.name(),
                Objects::toString);
        found.lists(
                "reset input",
                before.resets(),
                now.resets(),
                each -> each.name(),
                Objects::toString);
        found.lists(
                "bus interface",
                before.busInterfaces(),
                now.busInterfaces(),
                each -> each.name(),
                Objects::toString);
        found.lists(
                "stream", before.streams(), now.streams(), each -> each.name(), Objects::toString);
        found.lists(
                "interrupt",
                before.interrupts(),
                now.interrupts(),
                each -> each.name(),
                Objects::toString);
        found.lists(
                "outward interface",
                before.outward(),
                now.outward(),
                each -> each.name(),
                each -> each.ports() + " " + each.when());
        found.lists(
                "register",
                before.registers(),
                now.registers(),
                RegisterType::name,
                InterfaceChanges::place);
        for (RegisterType register : before.registers()) {
            now.registers().stream()
                    .filter(each -> each.name().equals(register.name()))
                    .findFirst()
                    .ifPresent(
                            its ->
                                    found.lists(
                                            "field of " + register.name(),
                                            register.fields(),
                                            its.fields(),
                                            FieldType::name,
                                            InterfaceChanges::place));
        }
        return List.copyOf(found.changes);
    }

    private static String place(RegisterType register) {
        return "%s %s %s %s %s %s %s"
                .formatted(
                        register.offset(),
                        register.width(),
                        register.isWhole(),
                        register.count(),
                        register.stride(),
                        register.selectedBy(),
                        register.when());
    }

    private static String place(FieldType field) {
        return "%s %s %s %s %s %s %s"
                .formatted(
                        field.lowBit(),
                        field.width(),
                        field.software(),
                        field.onWrite(),
                        field.onRead(),
                        field.reset(),
                        field.when());
    }

    /** Additions do no harm, except for inputs that have to be connected. */
    private <T> void lists(
            String what,
            List<T> before,
            List<T> now,
            Function<T, String> name,
            Function<T, String> seen) {
        Map<String, String> left = new LinkedHashMap<>();
        now.forEach(each -> left.put(name.apply(each), seen.apply(each)));
        for (T each : before) {
            String its = left.remove(name.apply(each));
            if (its == null) {
                changes.add("%s %s is gone".formatted(what, name.apply(each)));
            } else if (!its.equals(seen.apply(each))) {
                changes.add("%s %s is another".formatted(what, name.apply(each)));
            }
        }
        if (what.endsWith("input")
                || what.equals("bus interface")
                || what.equals("outward interface")) {
            left.keySet().forEach(added -> changes.add("%s %s is new".formatted(what, added)));
        }
    }
}
