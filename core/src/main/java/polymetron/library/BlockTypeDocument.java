package polymetron.library;

import polymetron.json.Documents;
import polymetron.json.SchemaFile;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ObjectNode;

/** Reads block type documents, checking them against the published schema; those of format 1 are read as format 2. */
public final class BlockTypeDocument {
    private static final SchemaFile SCHEMA =
            new SchemaFile(BlockTypeDocument.class, "block-type.schema.json");

    private static final SchemaFile FIRST =
            new SchemaFile(BlockTypeDocument.class, "block-type-1.schema.json");

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
        if (text.length() <= SchemaFile.LONGEST) {
            JsonNode tree = Documents.tree(name, text);
            if (BlockTypeMigration.isFirst(tree)) {
                FIRST.read(name, text, JsonNode.class);
                JsonNode second = BlockTypeMigration.migrate(name, text, (ObjectNode) tree);
                return BlockTypeChecks.checked(
                        name, text, SCHEMA.read(name, Documents.write(second), BlockType.class));
            }
        }
        return BlockTypeChecks.checked(name, text, SCHEMA.read(name, text, BlockType.class));
    }
}
