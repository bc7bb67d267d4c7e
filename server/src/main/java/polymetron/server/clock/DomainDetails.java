package polymetron.server.clock;

import jakarta.annotation.Nullable;
import java.util.List;

/**
 * One clock domain, what it could be made from, and what is in it.
 *
 * @param frequency actual frequency, in words
 * @param wantedHz requested frequency in hertz; missing when none is
 * @param pll PLL that makes its clock; missing when none does
 * @param clocks clocks of the board and of blocks
 * @param resets resets of the board and of blocks
 * @param inputs blocks with an input in it
 */
public record DomainDetails(
        long revision,
        String name,
        String clock,
        @Nullable String reset,
        @Nullable Long wantedHz,
        String frequency,
        @Nullable String pll,
        List<Source> clocks,
        List<Source> resets,
        List<Input> inputs,
        List<String> buses) {

    /** Something that a domain can take its clock or reset from. */
    public record Source(String name, String title) {}

    /**
     * A block in the domain.
     *
     * @param ports its clock and reset inputs that are
     */
    public record Input(String block, List<String> ports) {}
}
