package polymetron.image;

/**
 * Writes the initial contents of a memory for {@code $readmemh} (IEEE 1364-2005, 17.2.9): one hexadecimal number
 * a line, from address 0 on.
 */
public final class ReadMemH {
    private ReadMemH() {}

    /** Words of 32 bits, little-endian in the bytes; the number of bytes is a multiple of 4. */
    public static byte[] words(byte[] bytes) {
        HexText out = new HexText(bytes.length / 4 * 9);
        for (int at = 0; at < bytes.length; at += 4) {
            for (int lane = 3; lane >= 0; lane--) {
                out.put(bytes[at + lane], 1);
            }
            out.put('\n');
        }
        return out.bytes();
    }

    /** One byte lane of the 32-bit words: bytes {@code lane}, {@code lane + 4}, and so on. */
    public static byte[] lane(byte[] bytes, int lane) {
        HexText out = new HexText(bytes.length / 4 * 3);
        for (int at = lane; at < bytes.length; at += 4) {
            out.put(bytes[at], 1).put('\n');
        }
        return out.bytes();
    }
}
