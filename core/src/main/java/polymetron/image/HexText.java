package polymetron.image;

import java.util.Arrays;

/** A growing text of hexadecimal digits; the records of the image formats are written through it. */
final class HexText {
    private static final byte[] DIGITS =
            "0123456789ABCDEF".getBytes(java.nio.charset.StandardCharsets.US_ASCII);
    private byte[] text;
    private int length;

    HexText(int capacity) {
        text = new byte[capacity];
    }

    HexText put(char character) {
        reserve(1);
        text[length++] = (byte) character;
        return this;
    }

    /** The lowest bits of a value as so many bytes, most significant first. */
    HexText put(long value, int bytes) {
        reserve(2 * bytes);
        for (int shift = 8 * bytes - 4; shift >= 0; shift -= 4) {
            text[length++] = DIGITS[(int) (value >>> shift) & 15];
        }
        return this;
    }

    /** Bytes in order; returns their sum. */
    int put(byte[] bytes, int from, int count) {
        reserve(2 * count);
        int sum = 0;
        for (int at = from; at < from + count; at++) {
            int value = bytes[at] & 0xFF;
            sum += value;
            text[length++] = DIGITS[value >>> 4];
            text[length++] = DIGITS[value & 15];
        }
        return sum;
    }

    private void reserve(int more) {
        if (length + more > text.length) {
            text = Arrays.copyOf(text, Math.max(2 * text.length, length + more));
        }
    }

    byte[] bytes() {
        return Arrays.copyOf(text, length);
    }
}
