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
 * @param parameters parameters of the module, as expressions of the block's
 */
public record HardwareBinding(
        String module, List<String> files, Map<String, Expression> parameters) {
    public HardwareBinding {
        files = Lists.orEmpty(files);
        parameters =
                parameters == null
                        ? Map.of()
                        : Collections.unmodifiableMap(new TreeMap<>(parameters));
    }
}
