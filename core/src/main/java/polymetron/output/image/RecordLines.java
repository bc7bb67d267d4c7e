package polymetron.output.image;

import java.nio.charset.StandardCharsets;
import java.util.function.BiConsumer;

/** Lines of text that hold bytes as pairs of hexadecimal digits. */
final class RecordLines {
    private RecordLines() {}

    /** Whether the first character that is no white space is this one. */
    static boolean beginsWith(byte[] bytes, char first) {
        int at = 0;
        // A byte order mark says nothing here.
        if (bytes.length > 3 && (bytes[0] & 0xFF) == 0xEF && (bytes[1] & 0xFF) == 0xBB) {
            at = 3;
        }
        while (at < bytes.length && Character.isWhitespace(bytes[at])) {
            at++;
        }
        return at < bytes.length && bytes[at] == first;
    }

    /** Goes through the lines that are not empty, with their numbers from 1 on. */
    static void each(byte[] bytes, BiConsumer<Integer, String> line) {
        int number = 0;
        for (String text :
                new String(bytes, StandardCharsets.ISO_8859_1)
                        .replace("\u00EF\u00BB\u00BF", "")
                        .split("\r\n|\r|\n")) {
            number++;
            String stripped = text.strip();
            if (!stripped.isEmpty()) {
                line.accept(number, stripped);
            }
        }
    }

    /**
     * The bytes of a line from a character on.
     *
     * @throws ProgramFileException when there are other characters, or an odd number of digits
     */
    static byte[] bytes(int number, String line, int from) {
        int digits = line.length() - from;
        if (digits % 2 != 0) {
            throw wrong(number, "it has an odd number of digits: it was cut off");
        }
        byte[] bytes = new byte[digits / 2];
        for (int at = 0; at < bytes.length; at++) {
            int high = Character.digit(line.charAt(from + 2 * at), 16);
            int low = Character.digit(line.charAt(from + 2 * at + 1), 16);
            if (high < 0 || low < 0) {
                throw wrong(
                        number,
                        "'%s' is no pair of hexadecimal digits"
                                .formatted(line.substring(from + 2 * at, from + 2 * at + 2)));
            }
            bytes[at] = (byte) (high << 4 | low);
        }
        return bytes;
    }

    static ProgramFileException wrong(int number, String why) {
        return new ProgramFileException("line %s: %s".formatted(number, why));
    }

    /** A number of several bytes, the highest first. */
    static long number(byte[] bytes, int from, int count) {
        long number = 0;
        for (int at = from; at < from + count; at++) {
            number = number << 8 | bytes[at] & 0xFF;
        }
        return number;
    }
}
