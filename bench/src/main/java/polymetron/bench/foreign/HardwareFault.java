package polymetron.bench.foreign;

import java.util.Comparator;
import java.util.regex.MatchResult;
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
    /** A place in the text: lines and columns from and to. */
    private static final Pattern SOURCE =
            Pattern.compile(" -src ([^:\\s]+):([1-9]\\d*)\\.(\\d+)-(\\d+)\\.(\\d+)");

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
        boolean isNamed = !signal.startsWith("a bit");
        String at =
                cell.find()
                        ? cell.group(1)
                        : SOURCE.matcher(command)
                                .results()
                                // That of a signal comes first.
                                .min(Comparator.comparingLong(found -> isNamed ? 0 : extent(found)))
                                .map(found -> found.group(1) + ":" + found.group(2))
                                .orElse("?");
        return new HardwareFault(command, at, signal + " " + how);
    }

    /** How much text it is: instances around a cell are among its places, and are longer. */
    private static long extent(MatchResult place) {
        long lines = Long.parseLong(place.group(4)) - Long.parseLong(place.group(2));
        return 1_000_000 * lines + Long.parseLong(place.group(5)) - Long.parseLong(place.group(3));
    }
}
