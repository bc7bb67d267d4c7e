package polymetron.output.hardware;

import java.util.Map;
import polymetron.library.Board;

/**
 * What a converter of a board gives each time that it is read, as the board says it to the blocks that can drive it.
 *
 * @param channels samples one after the other
 * @param bits bits of each
 */
public record ConverterShape(int channels, int bits) {
    /** Where the board says nothing. */
    private static final ConverterShape USUAL = new ConverterShape(3, 24);

    private static final int MOST_CHANNELS = 16;
    private static final int MOST_BITS = 32;

    public static ConverterShape of(Board.Part part) {
        for (Board.Driver driver : part.drivers()) {
            int channels = number(driver.parameters(), "CHANNELS");
            int bits = number(driver.parameters(), "SAMPLE");
            if (channels >= 1 && channels <= MOST_CHANNELS && bits >= 2 && bits <= MOST_BITS) {
                return new ConverterShape(channels, bits);
            }
        }
        return USUAL;
    }

    private static int number(Map<String, String> parameters, String name) {
        String text = parameters.getOrDefault(name, "");
        return text.matches("[0-9]{1,4}") ? Integer.parseInt(text) : 0;
    }

    /** File of its samples in simulation. */
    String file() {
        return equals(USUAL)
                ? "spi_converter.hex"
                : "spi_converter_%sx%s.hex".formatted(channels, bits);
    }
}
