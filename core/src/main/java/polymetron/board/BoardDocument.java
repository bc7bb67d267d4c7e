package polymetron.board;

import polymetron.json.DocumentFormat;
import polymetron.json.Documents;
import polymetron.json.SchemaFile;
import polymetron.library.Board;

/** Reads and writes board documents, checking them against the published schema. */
public final class BoardDocument {
    private static final DocumentFormat<Board> FORMAT =
            new DocumentFormat<>(
                    Board.FORMAT,
                    new SchemaFile(BoardDocument.class, "board.schema.json"),
                    Board.class);

    private BoardDocument() {}

    /** The JSON Schema of board documents. */
    public static String schemaText() {
        return FORMAT.schemaText();
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
        return FORMAT.read(name, text);
    }

    /** The same for one that is kept already, whatever characters it has. */
    public static Board readKept(String name, String text) {
        return FORMAT.readKept(name, text);
    }
}
