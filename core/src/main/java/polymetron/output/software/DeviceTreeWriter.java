package polymetron.output.software;

import polymetron.text.TextWriter;

/** Text of a devicetree source: nodes, properties and their indentation. */
final class DeviceTreeWriter {
    private final TextWriter out = TextWriter.indentedBy("\t");
    private final boolean wide;

    /**
     * @param wide whether addresses take two cells
     */
    DeviceTreeWriter(boolean wide) {
        this.wide = wide;
    }

    void open(String name, Object... values) {
        out.open(name + " {", values);
    }

    void close() {
        out.close("};");
    }

    void line(String format, Object... values) {
        out.line(format, values);
    }

    /** Cells of an address, or of a size. */
    String address(long address) {
        return wide
                ? "0x%x 0x%x".formatted(address >>> 32, address & 0xFFFF_FFFFL)
                : "0x%x".formatted(address);
    }

    /** Cells of an address and a size. */
    String cells(long address, long size) {
        return address(address) + " " + address(size);
    }

    void addressing() {
        line("#address-cells = <%s>;", wide ? 2 : 1);
        line("#size-cells = <%s>;", wide ? 2 : 1);
    }

    String text() {
        return out.text();
    }
}
