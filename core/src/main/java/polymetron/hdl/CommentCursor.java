package polymetron.hdl;

import java.util.ArrayList;
import java.util.List;

/** What of line after line is code, and what is a comment or a string. */
final class CommentCursor {
    /** A piece of a line. */
    record Piece(boolean isCode, String text) {}

    private boolean inside;

    /** Whether a comment has begun in a line before and goes on. */
    boolean isInside() {
        return inside;
    }

    /** The pieces of the next line, which make it up together. */
    List<Piece> over(String line) {
        List<Piece> pieces = new ArrayList<>();
        int from = 0;
        int at = 0;
        while (at < line.length()) {
            int end =
                    inside || line.startsWith("/*", at) ? endOfComment(line, at) : other(line, at);
            if (end > at) {
                add(pieces, true, line.substring(from, at));
                add(pieces, false, line.substring(at, end));
                from = end;
                at = end;
            } else {
                at++;
            }
        }
        add(pieces, true, line.substring(from));
        return pieces;
    }

    private static void add(List<Piece> pieces, boolean isCode, String text) {
        if (!text.isEmpty()) {
            pieces.add(new Piece(isCode, text));
        }
    }

    private int endOfComment(String line, int at) {
        int end = line.indexOf("*/", inside ? at : at + 2);
        inside = end < 0;
        return end < 0 ? line.length() : end + 2;
    }

    /** The end of a comment to the end of the line, or of a string; where there is none, the place itself. */
    private static int other(String line, int at) {
        if (line.startsWith("//", at)) {
            return line.length();
        }
        if (line.charAt(at) != '"') {
            return at;
        }
        int end = at + 1;
        while (end < line.length() && line.charAt(end) != '"') {
            end += line.charAt(end) == '\\' ? 2 : 1;
        }
        return Math.min(line.length(), end + 1);
    }

    /** A line without the comment at its end. */
    static String withoutComment(String line) {
        StringBuilder code = new StringBuilder();
        for (Piece piece : new CommentCursor().over(line)) {
            boolean isComment = piece.text().startsWith("//") || piece.text().startsWith("/*");
            code.append(piece.isCode() || !isComment ? piece.text() : " ");
        }
        return code.toString();
    }
}
