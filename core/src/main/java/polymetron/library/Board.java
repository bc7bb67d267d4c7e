package polymetron.library;

import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.SortedMap;
import java.util.TreeMap;
import polymetron.json.DocumentFormat;

/**
 * A circuit board: its device, clocks, resets and the parts that reach FPGA pins.
 *
 * @param surroundings what is around the board and joins parts of it
 * @param voltages supply of each bank that is not the device's usual one, by the bank's name
 */
public record Board(
        String format,
        Vlnv identity,
        String title,
        String summary,
        String device,
        List<Clock> clocks,
        List<Reset> resets,
        List<Part> parts,
        List<Surrounding> surroundings,
        SortedMap<String, String> voltages) {
    public static final String FORMAT = "polymetron-board/1";

    private static final DocumentFormat<Board> DOCUMENT =
            new DocumentFormat<>(FORMAT, null, Board.class);

    /** An oscillator and the pin that it reaches. */
    public record Clock(String name, String title, long frequencyHz, String pin, String standard) {}

    /** A reset input and the pin that it reaches. */
    public record Reset(
            String name, String title, boolean activeLow, String pin, String standard) {}

    /** Lines between the FPGA and a part, lowest line first. */
    public record Signal(
            String name,
            Direction direction,
            List<String> pins,
            String standard,
            Boolean activeLow) {
        public Signal {
            pins = Lists.orEmpty(pins);
        }

        public int width() {
            return pins.size();
        }
    }

    /** A block type that can drive a part, and with which parameters. */
    public record Driver(Vlnv type, String outward, Map<String, String> parameters) {
        public Driver {
            parameters = parameters == null ? Map.of() : Map.copyOf(parameters);
        }
    }

    /** Something soldered on the board that reaches FPGA pins. */
    public record Part(
            String name,
            String kind,
            String title,
            String summary,
            List<Signal> signals,
            List<Driver> drivers) {
        public Part {
            signals = Lists.orEmpty(signals);
            drivers = Lists.orEmpty(drivers);
        }

        public Optional<Signal> signal(String name) {
            return signals.stream().filter(signal -> signal.name().equals(name)).findFirst();
        }
    }

    public Board {
        clocks = Lists.orEmpty(clocks);
        resets = Lists.orEmpty(resets);
        parts = Lists.orEmpty(parts);
        surroundings = Lists.orEmpty(surroundings);
        voltages =
                voltages == null
                        ? Collections.emptySortedMap()
                        : Collections.unmodifiableSortedMap(new TreeMap<>(voltages));
    }

    public Optional<Part> part(String name) {
        return parts.stream().filter(part -> part.name().equals(name)).findFirst();
    }

    public Optional<Clock> clock(String name) {
        return clocks.stream().filter(clock -> clock.name().equals(name)).findFirst();
    }

    public Optional<Reset> reset(String name) {
        return resets.stream().filter(reset -> reset.name().equals(name)).findFirst();
    }

    /**
     * One that comes with the product: its form, and no more, is checked.
     *
     * @param name what the document is called in messages, such as its file name
     * @throws polymetron.json.DocumentException when it is of another form; the message names line and key
     */
    static Board read(String name, String text) {
        return DOCUMENT.read(name, text);
    }
}
