package polymetron.compare;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeSet;
import polymetron.address.Address;
import polymetron.elaborate.BlockShape;
import polymetron.elaborate.Register;
import polymetron.elaborate.SizedInterface;
import polymetron.elaborate.SizedInterrupt;
import polymetron.elaborate.SizedOutward;
import polymetron.elaborate.SizedPort;
import polymetron.expression.Value;
import polymetron.library.Resources;

/** What differs between two shapes of one block type, in words: what a parameter changes before it is changed. */
public final class ShapeDifference {
    private ShapeDifference() {}

    /**
     * @param changed name of the parameter that is changed itself, which is not told; null for none
     */
    public static List<String> of(BlockShape before, BlockShape after, String changed) {
        List<String> words = new ArrayList<>();
        compare(words, parameters(before, changed), parameters(after, changed));
        compare(words, ranges(before), ranges(after));
        compare(words, ports(before), ports(after));
        compare(words, interrupts(before), interrupts(after));
        compare(words, registers(before), registers(after));
        compare(words, resources(before), resources(after));
        return List.copyOf(words);
    }

    private static void compare(
            List<String> words, Map<String, String> before, Map<String, String> after) {
        TreeSet<String> names = new TreeSet<>(before.keySet());
        names.addAll(after.keySet());
        for (String name : names) {
            String old = before.get(name);
            String now = after.get(name);
            if (old == null) {
                words.add("%s: %s, new".formatted(name, now));
            } else if (now == null) {
                words.add("%s: gone".formatted(name));
            } else if (!old.equals(now)) {
                words.add("%s: %s → %s".formatted(name, old, now));
            }
        }
    }

    private static Map<String, String> parameters(BlockShape shape, String changed) {
        Map<String, String> values = new LinkedHashMap<>();
        for (Map.Entry<String, Value> entry : shape.parameters().entrySet()) {
            if (!entry.getKey().equals(changed)) {
                values.put(entry.getKey(), entry.getValue().toString());
            }
        }
        return values;
    }

    private static Map<String, String> ranges(BlockShape shape) {
        Map<String, String> ranges = new LinkedHashMap<>();
        for (SizedInterface form : shape.busInterfaces()) {
            ranges.put(
                    (form.isTarget() ? "range of " : "initiator ") + form.name(),
                    form.isTarget()
                            ? Address.formatSize(form.sizeBytes())
                            : form.dataWidth() + " bit");
        }
        return ranges;
    }

    private static Map<String, String> ports(BlockShape shape) {
        Map<String, String> ports = new LinkedHashMap<>();
        for (SizedOutward form : shape.outward()) {
            for (SizedPort port : form.ports()) {
                ports.put(
                        "port %s.%s".formatted(form.name(), port.name()),
                        "%s %s".formatted(port.width(), port.direction().words()));
            }
        }
        return ports;
    }

    private static Map<String, String> interrupts(BlockShape shape) {
        Map<String, String> ports = new LinkedHashMap<>();
        for (SizedInterrupt port : shape.interrupts()) {
            ports.put(
                    "interrupt " + port.name(),
                    port.isSource() ? "a source" : "%s inputs".formatted(port.count()));
        }
        return ports;
    }

    private static Map<String, String> registers(BlockShape shape) {
        Map<String, String> registers = new LinkedHashMap<>();
        for (Register register : shape.registers()) {
            registers.put(
                    "register " + register.name(),
                    register.count() == 1
                            ? reset(register)
                            : "%s of them".formatted(register.count()));
        }
        return registers;
    }

    private static String reset(Register register) {
        return register.resetFollowsClock()
                ? "reset from the clock"
                : "reset 0x%X".formatted(register.reset(0, 0));
    }

    private static Map<String, String> resources(BlockShape shape) {
        Map<String, String> amounts = new LinkedHashMap<>();
        Resources resources = shape.type().resources();
        if (resources != null) {
            amounts.put("lookup tables", "" + shape.number(resources.lookupTables(), 0));
            amounts.put("flip-flops", "" + shape.number(resources.flipFlops(), 0));
            amounts.put("memory bits", "" + shape.memoryBits());
            amounts.put("multipliers", "" + shape.number(resources.multipliers(), 0));
        }
        return amounts;
    }
}
