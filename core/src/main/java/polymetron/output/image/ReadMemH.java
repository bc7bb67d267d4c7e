package polymetron.output.image;

/**
 * Writes the initial contents of a memory for {@code $readmemh} (IEEE 1364-2005, 17.2.9): one hexadecimal number
 * a line, from address 0 on.
 */
public final class ReadMemH {
    private ReadMemH() {}

    /** Words, little-endian in the bytes; the number of bytes is a multiple of a word's. */
    public static byte[] words(byte[] bytes, int wordBytes) {
        HexText out = new HexText(bytes.length / wordBytes * (2 * wordBytes + 1));
        for (int at = 0; at < bytes.length; at += wordBytes) {
            for (int lane = wordBytes - 1; lane >= 0; lane--) {
                out.put(bytes[at + lane], 1);
            }
            out.put('\n');
        }
        return out.bytes();
    }

    /** One byte lane of the words: byte {@code lane} of each. */
    public static byte[] lane(byte[] bytes, int wordBytes, int lane) {
        HexText out = new HexText(bytes.length / wordBytes * 3);
        for (int at = lane; at < bytes.length; at += wordBytes) {
            out.put(bytes[at], 1).put('\n');
        }
        return out.bytes();
    }
}
