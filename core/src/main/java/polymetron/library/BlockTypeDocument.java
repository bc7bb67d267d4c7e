package polymetron.library;

import polymetron.json.DocumentFormat;
import polymetron.json.SchemaFile;

/** Reads block type documents of all versions, checking them against the published schema. */
public final class BlockTypeDocument {
    private static final DocumentFormat<BlockType> FORMAT =
            new DocumentFormat<>(
                    BlockType.FORMAT,
                    new SchemaFile(BlockTypeDocument.class, "block-type.schema.json"),
                    BlockType.class,
                    new DocumentFormat.Earlier(
                            "polymetron-block-type/1",
                            new SchemaFile(BlockTypeDocument.class, "block-type-1.schema.json"),
                            BlockTypeMigration::migrate));

    private BlockTypeDocument() {}

    /** The JSON Schema of block type documents. */
    public static String schemaText() {
        return FORMAT.schemaText();
    }

    /**
     * @param name what the document is called in messages, such as its file name
     * @throws polymetron.json.DocumentException when it is no block type; the message names line and key
     */
    public static BlockType read(String name, String text) {
        return BlockTypeChecks.checked(name, text, FORMAT.read(name, text));
    }
}
