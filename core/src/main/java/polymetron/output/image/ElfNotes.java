package polymetron.output.image;

import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.util.Optional;
import java.util.regex.Pattern;

/**
 * Finds the fingerprint of a platform in a note section (System V gABI, chapter 5, "Note Section"): entries of a name, a
 * type and a description, each padded to 4 bytes. The hand-off's start-up code writes the name {@code polymetron}, type
 * 1 and the 16 digits of the fingerprint. What is no such note is passed over.
 */
final class ElfNotes {
    private static final String NAME = "polymetron\0";
    private static final int FINGERPRINT = 1;
    private static final Pattern DIGITS = Pattern.compile("[0-9a-f]{16}");

    private ElfNotes() {}

    static Optional<String> fingerprint(byte[] section) {
        ByteBuffer notes = ByteBuffer.wrap(section).order(ByteOrder.LITTLE_ENDIAN);
        while (notes.remaining() >= 12) {
            long nameBytes = Integer.toUnsignedLong(notes.getInt());
            long bytes = Integer.toUnsignedLong(notes.getInt());
            int type = notes.getInt();
            long description = notes.position() + padded(nameBytes);
            long end = description + padded(bytes);
            // The padding of the last one may be missing.
            if (description + bytes > section.length) {
                return Optional.empty();
            }
            String name = text(section, notes.position(), nameBytes);
            String said = text(section, description, bytes);
            if (name.equals(NAME) && type == FINGERPRINT && DIGITS.matcher(said).matches()) {
                return Optional.of(said);
            }
            notes.position((int) Math.min(end, section.length));
        }
        return Optional.empty();
    }

    private static long padded(long bytes) {
        return bytes + 3 & ~3L;
    }

    private static String text(byte[] bytes, long from, long count) {
        return new String(bytes, (int) from, (int) count, StandardCharsets.US_ASCII);
    }
}
