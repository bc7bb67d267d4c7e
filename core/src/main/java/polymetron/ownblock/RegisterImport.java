package polymetron.ownblock;

/** Registers out of what is there already: rows of a spreadsheet, or a description in XML. */
public final class RegisterImport {
    private RegisterImport() {}

    /**
     * @param text a table as of {@link RegisterTable}, or a component as of {@link RegisterXml}
     * @return the text of a JSON array, as a definition has registers
     * @throws polymetron.json.DocumentException when it cannot be read; the message says where, and what would be right
     */
    public static String read(String text) {
        String begins = text.startsWith("\uFEFF") ? text.substring(1) : text;
        return begins.stripLeading().startsWith("<")
                ? RegisterXml.read(begins.stripLeading())
                : RegisterTable.read(begins);
    }
}
