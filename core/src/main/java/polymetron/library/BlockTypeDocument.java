package polymetron.library;

import polymetron.json.SchemaFile;

/** Reads block type documents, checking them against the published schema. */
public final class BlockTypeDocument {
    private static final SchemaFile SCHEMA =
            new SchemaFile(BlockTypeDocument.class, "block-type.schema.json");

    private BlockTypeDocument() {}

    /** The JSON Schema of block type documents. */
    public static String schemaText() {
        return SCHEMA.text();
    }

    /**
     * @param name what the document is called in messages, such as its file name
     * @throws polymetron.json.DocumentException when it is no block type; the message names line and key
     */
    public static BlockType read(String name, String text) {
        return SCHEMA.read(name, text, BlockType.class);
    }
}
