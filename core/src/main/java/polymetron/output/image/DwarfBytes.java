package polymetron.output.image;

import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;

/**
 * A section of debugging information, read from front to back. The file is not trusted: every read is checked by the buffer, which
 * throws {@link java.nio.BufferUnderflowException} or {@link IndexOutOfBoundsException} at its end.
 */
final class DwarfBytes {
    /** Longest name that is taken from a file. */
    private static final int LONGEST_NAME = 255;

    private final ByteBuffer bytes;

    DwarfBytes(byte[] section) {
        this(ByteBuffer.wrap(section).order(ByteOrder.LITTLE_ENDIAN));
    }

    private DwarfBytes(ByteBuffer bytes) {
        this.bytes = bytes;
    }

    boolean hasMore() {
        return bytes.hasRemaining();
    }

    int at() {
        return bytes.position();
    }

    void goTo(long position) {
        bytes.position(Math.toIntExact(position));
    }

    void skip(long count) {
        goTo(bytes.position() + count);
    }

    /** The next bytes on their own; reading goes on behind them. */
    DwarfBytes part(long length) {
        DwarfBytes part =
                new DwarfBytes(
                        bytes.slice(bytes.position(), Math.toIntExact(length))
                                .order(ByteOrder.LITTLE_ENDIAN));
        skip(length);
        return part;
    }

    int signedByte() {
        return bytes.get();
    }

    int one() {
        return Byte.toUnsignedInt(bytes.get());
    }

    int two() {
        return Short.toUnsignedInt(bytes.getShort());
    }

    long four() {
        return Integer.toUnsignedLong(bytes.getInt());
    }

    /** A number in seven bits a byte, the lowest first (DWARF 5, 7.6); more than 64 bits are cut. */
    long unsigned() {
        long value = 0;
        for (int shift = 0; ; shift += 7) {
            int next = one();
            value |= shift < Long.SIZE ? (long) (next & 0x7F) << shift : 0;
            if ((next & 0x80) == 0) {
                return value;
            }
        }
    }

    /** The same in two's complement. */
    long signed() {
        long value = 0;
        for (int shift = 0; ; ) {
            int next = one();
            value |= shift < Long.SIZE ? (long) (next & 0x7F) << shift : 0;
            shift += 7;
            if ((next & 0x80) == 0) {
                return shift < Long.SIZE && (next & 0x40) != 0 ? value | -1L << shift : value;
            }
        }
    }

    /** Characters up to a zero; a long name is cut, and control characters are replaced. */
    String text() {
        StringBuilder raw = new StringBuilder();
        for (int next = one(); next != 0; next = one()) {
            if (raw.length() < LONGEST_NAME) {
                raw.append((char) next);
            }
        }
        return new String(
                        raw.toString().getBytes(StandardCharsets.ISO_8859_1),
                        StandardCharsets.UTF_8)
                .replaceAll("\\p{Cntrl}", "?");
    }

    /** The text at a place of a section of texts. */
    String textAt(long offset) {
        bytes.position(Math.toIntExact(offset));
        return text();
    }
}
