package polymetron.bus;

/**
 * Logic of the end of a bus, counted with yosys for tables of six inputs and 32 data bits.
 *
 * @param lookupTables number of lookup tables
 * @param flipFlops number of flip-flops
 */
public record BusEndSize(int lookupTables, int flipFlops) {
    /**
     * The end that answers.
     *
     * @param addressBits address lines that the target has
     */
    public static BusEndSize target(Protocol protocol, int addressBits) {
        return switch (protocol) {
            case AXI4 -> new BusEndSize(150 + 3 * addressBits, 99 + 2 * addressBits);
            case AXI4_LITE -> new BusEndSize(13 + addressBits, 39);
            case AHB_LITE -> new BusEndSize(10, 6 + addressBits);
            case APB -> new BusEndSize(5, 0);
            case WISHBONE -> new BusEndSize(7, 0);
        };
    }

    /** The end that asks. */
    public static BusEndSize initiator(Protocol protocol) {
        return switch (protocol) {
            case AXI4, AXI4_LITE -> new BusEndSize(6, 2);
            case AHB_LITE -> new BusEndSize(29, 10);
            case APB -> new BusEndSize(6, 1);
            case WISHBONE -> new BusEndSize(1, 0);
        };
    }

    /**
     * What the end of another protocol takes beyond one of AXI4-Lite, with which blocks and adapters are estimated; never
     * less than nothing.
     */
    public static BusEndSize beyondLite(Protocol protocol, int addressBits) {
        BusEndSize own = target(protocol, addressBits);
        BusEndSize lite = target(Protocol.AXI4_LITE, addressBits);
        return new BusEndSize(
                Math.max(0, own.lookupTables() - lite.lookupTables()),
                Math.max(0, own.flipFlops() - lite.flipFlops()));
    }
}
