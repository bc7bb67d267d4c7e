package polymetron.output.image;

import java.lang.invoke.MethodHandles;
import java.lang.invoke.VarHandle;
import java.nio.ByteOrder;
import java.util.Arrays;

/**
 * A growing text of hexadecimal digits; the records of the image formats are written through it. Images reach many
 * megabytes, so the two digits of a byte come from a table and are stored at once.
 */
final class HexText {
    private static final VarHandle PAIR =
            MethodHandles.byteArrayViewVarHandle(short[].class, ByteOrder.BIG_ENDIAN);
    private static final short[] DIGITS = new short[256];

    static {
        for (int value = 0; value < DIGITS.length; value++) {
            DIGITS[value] = (short) (digit(value >>> 4) << 8 | digit(value & 15));
        }
    }

    private byte[] text;
    private int length;

    /**
     * @param capacity characters that are expected; exactly right, nothing is copied
     */
    HexText(int capacity) {
        text = new byte[capacity];
    }

    /** Writes into a text that is there already, from a place on. */
    HexText(byte[] text, int place) {
        this.text = text;
        this.length = place;
    }

    private static int digit(int value) {
        return value < 10 ? '0' + value : 'A' + value - 10;
    }

    HexText put(char character) {
        reserve(1);
        text[length++] = (byte) character;
        return this;
    }

    /** The lowest bits of a value as so many bytes, most significant first. */
    HexText put(long value, int bytes) {
        reserve(2 * bytes);
        for (int shift = 8 * (bytes - 1); shift >= 0; shift -= 8) {
            PAIR.set(text, length, DIGITS[(int) (value >>> shift) & 0xFF]);
            length += 2;
        }
        return this;
    }

    /** Bytes in order; returns their sum. */
    int put(byte[] bytes, int from, int count) {
        reserve(2 * count);
        byte[] to = text;
        int place = length;
        int sum = 0;
        for (int at = from; at < from + count; at++) {
            int value = bytes[at] & 0xFF;
            sum += value;
            PAIR.set(to, place, DIGITS[value]);
            place += 2;
        }
        length = place;
        return sum;
    }

    private void reserve(int more) {
        if (length + more > text.length) {
            text = Arrays.copyOf(text, Math.max(text.length + text.length / 2, length + more));
        }
    }

    /** The text; nothing is put behind it any more. */
    byte[] bytes() {
        return length == text.length ? text : Arrays.copyOf(text, length);
    }
}
