package polymetron.server.platform;

import jakarta.annotation.Nullable;
import java.util.List;

/**
 * The address spaces of all initiators side by side, and the free space and address decode of all buses.
 */
public record AddressesView(
        long revision,
        RulersView rulers,
        List<FreeView> free,
        List<ReservedView> reserved,
        List<LoadView> loads,
        List<DecodeView> decode) {

    /**
     * The address spaces of all initiators side by side.
     *
     * @param columns what each column is called
     * @param initiators the initiator of each column, as block.interface
     * @param buses the bus of each column; empty for one that is on none
     */
    public record RulersView(
            List<String> columns,
            List<String> initiators,
            List<String> buses,
            List<RulerRow> rows) {}

    /** A run of addresses in which no column changes. */
    public record RulerRow(String base, String last, String size, List<RulerCell> cells) {}

    /**
     * What one initiator finds in a row.
     *
     * @param targets none in a gap, several in a conflict
     * @param gap why nothing answers: free, behind, kept, hidden, outside; missing where something does
     * @param what what is there instead, in words; missing for free space
     */
    public record RulerCell(
            List<RulerTarget> targets, @Nullable String gap, @Nullable String what) {}

    /**
     * @param bus bus that it is on
     * @param via bridges on the way to it
     */
    public record RulerTarget(
            String label, String block, String busInterface, String bus, List<String> via) {}

    /** Addresses of a bus that automatic placement keeps free. */
    public record ReservedView(
            String bus,
            String name,
            String base,
            String last,
            @Nullable SeenRange software,
            String size) {}

    /**
     * What a bus can carry and what is taken of it.
     *
     * @param singles bytes a second with single transfers, in words
     * @param bursts the same with the longest bursts of its initiators
     * @param busy percent of its time that is taken by those who said what they move
     */
    public record LoadView(
            String bus,
            String clock,
            String singles,
            String bursts,
            double busy,
            List<TrafficView> shares) {}

    /**
     * An initiator on its way over a bus.
     *
     * @param traffic bytes a second, in words
     * @param percent percent of the bus's time
     */
    public record TrafficView(String initiator, String label, String traffic, double percent) {}

    /**
     * The address decode of a target.
     *
     * @param full address bits that are compared, and what they have to be
     * @param partial the same with as few bits as tell it from the others
     * @param aliases how often it appears with partial decoding, in words
     */
    public record DecodeView(
            String bus,
            String target,
            String block,
            String full,
            int fullLookupTables,
            String partial,
            int partialLookupTables,
            String aliases) {}

    /**
     * Free space on a bus.
     *
     * @param software where software finds it behind a bridge; missing where it has the same addresses, or none
     */
    public record FreeView(
            String bus, String base, String last, @Nullable SeenRange software, String size) {}

    /** The addresses of a range as software uses them. */
    public record SeenRange(String base, String last) {}
}
