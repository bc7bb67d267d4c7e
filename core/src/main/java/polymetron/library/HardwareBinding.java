package polymetron.library;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.TreeMap;
import polymetron.expression.Expression;

/**
 * How a block is built: the Verilog module that does what it does. Its ports have the names of the definition: clocks,
 * resets, interrupts, ports that leave the chip, the signals of a bus interface behind its name, and those that a generated
 * register bank has for its fields.
 *
 * @param module name of the module
 * @param files files in the folder {@code hdl/} of the block type; none where it is one of the common modules
 * @param parameters parameters of the module, as expressions of the block's and of what {@link #names} adds to them
 */
public record HardwareBinding(
        String module, List<String> files, Map<String, Expression> parameters) {
    /** Name of the upper 32 bits of the platform's fingerprint. */
    public static final String FINGERPRINT_HIGH = "FINGERPRINT_HIGH";

    /** Name of its lower 32 bits. */
    public static final String FINGERPRINT_LOW = "FINGERPRINT_LOW";

    /** Whether a machine timer serves the hart that the block is: 1 or 0. */
    public static final String HAS_TIME = "HAS_TIME";

    /** Clock of the block in hertz. */
    public static final String CLOCK = "CLOCK";

    /** Address bits of a bus interface, as the bus needs them. */
    public static String addressBits(String busInterface) {
        return busInterface.toUpperCase(Locale.ROOT) + "_ADDRESS_BITS";
    }

    /** Half of the period of a clock that the block makes, in picoseconds. */
    public static String halfPeriod(String clockOutput) {
        return clockOutput.toUpperCase(Locale.ROOT) + "_HALF_PERIOD";
    }

    /** What expressions of the module's parameters may name beside the parameters of the block. */
    static List<String> names(BlockType type) {
        List<String> names =
                new ArrayList<>(List.of(FINGERPRINT_HIGH, FINGERPRINT_LOW, HAS_TIME, CLOCK));
        type.busInterfaces().forEach(each -> names.add(addressBits(each.name())));
        type.clockOutputs().forEach(each -> names.add(halfPeriod(each.name())));
        return names;
    }

    public HardwareBinding {
        files = Lists.orEmpty(files);
        parameters =
                parameters == null
                        ? Map.of()
                        : Collections.unmodifiableMap(new TreeMap<>(parameters));
    }
}
