package polymetron.board;

import polymetron.json.Documents;
import polymetron.json.SchemaFile;
import polymetron.library.Board;

/** Reads and writes board documents, checking them against the published schema. */
public final class BoardDocument {
    private static final SchemaFile SCHEMA =
            new SchemaFile(BoardDocument.class, "board.schema.json");

    private BoardDocument() {}

    /** The JSON Schema of board documents. */
    public static String schemaText() {
        return SCHEMA.text();
    }

    /** The canonical text of a board: the same board always gives the same bytes. */
    public static String write(Board board) {
        return Documents.write(board);
    }

    /**
     * @param name what the document is called in messages, such as its file name
     * @throws polymetron.json.DocumentException when it is no board document; the message names line and key
     */
    public static Board read(String name, String text) {
        return SCHEMA.read(name, text, Board.class);
    }
}
