package polymetron.library;

import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import polymetron.expression.Expression;

/**
 * How a block is built: the Verilog module that does what it does. Its ports have the names of the definition: clocks,
 * resets, interrupts, ports that leave the chip, the signals of a bus interface behind its name, and those that a generated
 * register bank has for its fields.
 *
 * @param module name of the module
 * @param files files in the folder {@code hdl/} of the block type
 * @param parameters parameters of the module, as expressions of the block's, and of {@link #FINGERPRINT_HIGH} and {@link
 *     #FINGERPRINT_LOW}
 */
public record HardwareBinding(
        String module, List<String> files, Map<String, Expression> parameters) {
    /** Name of the upper 32 bits of the platform's fingerprint. */
    public static final String FINGERPRINT_HIGH = "FINGERPRINT_HIGH";

    /** Name of its lower 32 bits. */
    public static final String FINGERPRINT_LOW = "FINGERPRINT_LOW";

    public HardwareBinding {
        files = Lists.orEmpty(files);
        parameters =
                parameters == null
                        ? Map.of()
                        : Collections.unmodifiableMap(new TreeMap<>(parameters));
    }
}
