package polymetron.server.platform;

import java.util.List;

/**
 * The address spaces of all initiators side by side, and the free space and select logic of all buses.
 */
public record AddressesView(
        long revision, RulersView rulers, List<FreeView> free, List<DecodeView> decode) {

    /**
     * The address spaces of all initiators side by side.
     *
     * @param columns what each column is called
     */
    public record RulersView(List<String> columns, List<RulerRow> rows) {}

    /** A run of addresses in which no column changes; for each column the targets there, none in a gap. */
    public record RulerRow(String base, String last, String size, List<List<String>> cells) {}

    /**
     * The select logic of a target.
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

    /** Free space on a bus. */
    public record FreeView(String bus, String base, String last, String size) {}
}
