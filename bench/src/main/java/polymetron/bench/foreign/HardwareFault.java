package polymetron.bench.foreign;

import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * A wrong place in a module, as yosys lists it (mutate).
 *
 * @param command what makes it
 * @param at file and line; a question mark where that is not known
 * @param what the signal where it has a name, and what is wrong with it
 */
public record HardwareFault(String command, String at, String what) {
    private static final Pattern SOURCE = Pattern.compile(" -src ([^:\\s]+:[1-9]\\d*)\\S*");

    /** In the name of a cell, behind the path of instances: where it comes from itself. */
    private static final Pattern OF_CELL =
            Pattern.compile(" -cell \\S*?([^\\s:$\\\\]+\\.s?vh?:[1-9]\\d*)\\$");

    private static final Pattern WIRE = Pattern.compile(" -wire (\\S+)(?: -wirebit (\\d+))?");
    private static final Pattern MODE = Pattern.compile("-mode (\\w+)");

    /**
     * @param command a line of the list
     */
    public static HardwareFault of(String command) {
        Matcher cell = OF_CELL.matcher(command);
        Matcher source = SOURCE.matcher(command);
        Matcher wire = WIRE.matcher(command);
        Matcher mode = MODE.matcher(command);
        String how =
                switch (mode.find() ? mode.group(1) : "") {
                    case "const0" -> "stuck at 0";
                    case "const1" -> "stuck at 1";
                    case "inv" -> "inverted";
                    default -> "inverted by another bit";
                };
        String signal = "a bit of an expression";
        if (wire.find()) {
            String bit = wire.group(2);
            signal = wire.group(1) + (bit == null ? "" : "[" + bit + "]");
        }
        String at = cell.find() ? cell.group(1) : source.find() ? source.group(1) : "?";
        return new HardwareFault(command, at, signal + " " + how);
    }
}
