package polymetron.handoff;

/** Text of a devicetree source: nodes, properties and their indentation. */
final class DeviceTreeWriter {
    private final StringBuilder out = new StringBuilder();
    private final boolean wide;
    private int depth;

    /**
     * @param wide whether addresses take two cells
     */
    DeviceTreeWriter(boolean wide) {
        this.wide = wide;
    }

    void open(String name, Object... values) {
        line(name.formatted(values) + " {");
        depth++;
    }

    void close() {
        depth--;
        line("};");
    }

    void line(String format, Object... values) {
        String text = values.length == 0 ? format : format.formatted(values);
        out.append("\t".repeat(text.isEmpty() ? 0 : depth)).append(text).append('\n');
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
        return out.toString();
    }
}
