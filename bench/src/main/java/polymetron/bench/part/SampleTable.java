package polymetron.bench.part;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.List;
import polymetron.text.Csv;

/**
 * Samples of a converter from a table of comma-separated values (RFC 4180): a row for each sample, a column for each channel, whole
 * numbers as the converter gives them. A first row without numbers holds titles.
 */
public final class SampleTable {
    /** More rows than these are not taken. */
    public static final int MOST_ROWS = 1_000_000;

    private static final int MOST_SHOWN = 40;

    private SampleTable() {}

    /**
     * @param bits of a sample, with its sign
     * @return by time and channel
     * @throws IllegalArgumentException when the table is not such a one; the message names the line
     */
    public static int[][] read(String text, int channels, int bits) {
        List<int[]> samples = new ArrayList<>();
        boolean isFirst = true;
        for (Csv.Row row : Csv.read(text)) {
            if (row.isBlank()) {
                continue;
            }
            boolean holdsTitles =
                    isFirst && row.cells().stream().noneMatch(cell -> number(cell) != null);
            isFirst = false;
            if (holdsTitles) {
                continue;
            }
            if (samples.size() >= MOST_ROWS) {
                throw new IllegalArgumentException(
                        "the table has more than %,d samples".formatted(MOST_ROWS));
            }
            samples.add(sample(row, channels, bits));
        }
        if (samples.isEmpty()) {
            throw new IllegalArgumentException(
                    "the table has no samples: write one row for each sample, with %s whole numbers between commas, one for each channel"
                            .formatted(channels));
        }
        return samples.toArray(int[][]::new);
    }

    private static int[] sample(Csv.Row row, int channels, int bits) {
        if (row.cells().size() != channels) {
            throw new IllegalArgumentException(
                    "line %s has %s values; the converter has %s channels, separated by commas"
                            .formatted(row.line(), row.cells().size(), channels));
        }
        long largest = (1L << bits - 1) - 1;
        int[] sample = new int[channels];
        for (int channel = 0; channel < channels; channel++) {
            Long value = number(row.cell(channel));
            if (value == null || value > largest || value < -largest - 1) {
                throw new IllegalArgumentException(
                        "line %s, channel %s: \"%s\" is no sample of %s bits; write a whole number from %s to %s"
                                .formatted(
                                        row.line(),
                                        channel,
                                        shown(row.cell(channel)),
                                        bits,
                                        -largest - 1,
                                        largest));
            }
            sample[channel] = value.intValue();
        }
        return sample;
    }

    private static String shown(String cell) {
        String text = cell.replaceAll("\\p{Cntrl}", "?");
        return text.length() <= MOST_SHOWN ? text : text.substring(0, MOST_SHOWN) + "…";
    }

    /** A whole number, also written as 12.0; null for anything else. */
    private static Long number(String cell) {
        String text = cell.strip();
        if (text.isEmpty() || text.length() > MOST_SHOWN || !text.matches("[+-]?[0-9]+(\\.0*)?")) {
            return null;
        }
        try {
            return new BigDecimal(text).longValueExact();
        } catch (ArithmeticException large) {
            return null;
        }
    }
}
