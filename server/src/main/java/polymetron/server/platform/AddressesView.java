package polymetron.server.platform;

import java.util.List;

/**
 * The address spaces of all initiators side by side, and the free space of all buses.
 */
public record AddressesView(long revision, RulersView rulers, List<FreeView> free) {

    /**
     * The address spaces of all initiators side by side.
     *
     * @param columns what each column is called
     */
    public record RulersView(List<String> columns, List<RulerRow> rows) {}

    /** A run of addresses in which no column changes; for each column the targets there, none in a gap. */
    public record RulerRow(String base, String last, String size, List<List<String>> cells) {}

    /** Free space on a bus. */
    public record FreeView(String bus, String base, String last, String size) {}
}
