package polymetron.bench.live;

import java.util.List;
import polymetron.bench.part.SurroundingModel;

/** What is outside the board, as parts of it measure or receive it. */
public record Outside(
        List<Voltage> voltages,
        List<Signal> signals,
        List<Reception> receptions,
        List<Around> around) {
    public Outside {
        voltages = List.copyOf(voltages);
        signals = List.copyOf(signals);
        receptions = List.copyOf(receptions);
        around = List.copyOf(around);
    }

    /**
     * A voltage that a block measures.
     *
     * @param fullScale voltage of the largest number, in volts
     */
    public record Voltage(String part, String block, int channel, double volts, double fullScale) {}

    /**
     * What a converter measures.
     *
     * @param shape the shape it has now
     * @param shapes those that it can have
     * @param channels of a sample
     * @param bits of each, with its sign
     */
    public record Signal(
            String part, String block, String shape, List<String> shapes, int channels, int bits) {}

    /**
     * Something that joins parts of the board.
     *
     * @param parts the board's parts that it moves while it acts
     */
    public record Around(
            String kind,
            String title,
            String summary,
            boolean acts,
            List<String> parts,
            List<SurroundingModel.Reading> readings) {}

    /** Whether a receiver sees its satellites. */
    public record Reception(String part, String block, boolean on) {}
}
