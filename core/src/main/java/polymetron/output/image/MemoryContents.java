package polymetron.output.image;

import java.util.Arrays;
import java.util.List;
import java.util.zip.CRC32;
import polymetron.elaborate.TargetRange;

/**
 * What a program puts into one memory.
 *
 * @param start offset of the first byte of the contents: 0 where the bitstream fills the memory, else that of the
 *     first loaded byte
 * @param contents bytes from there to the last loaded byte, gaps filled; null where they are so far apart that only
 *     the formats with addresses can hold them
 * @param loadedBytes bytes that came from the program
 * @param zeroBytes bytes that the program clears or leaves open
 */
public record MemoryContents(
        TargetRange memory, long start, byte[] contents, long loadedBytes, long zeroBytes) {
    /** Longest contents that are joined to one piece, in bytes. */
    private static final long LONGEST = 64L * 1024 * 1024;

    private static final byte[] NOTHING = {};

    static MemoryContents of(
            TargetRange memory, List<LoadedPiece> pieces, long zeroBytes, byte fill) {
        List<LoadedPiece> inside =
                pieces.stream().filter(piece -> piece.memory().isSameMemoryAs(memory)).toList();
        long loaded = inside.stream().mapToLong(piece -> piece.bytes().length).sum();
        long first = inside.stream().mapToLong(LoadedPiece::offset).min().orElse(0);
        long start = memory.isFilledByBitstream() ? 0 : first;
        return new MemoryContents(memory, start, joined(inside, start, fill), loaded, zeroBytes);
    }

    private static byte[] joined(List<LoadedPiece> pieces, long start, byte fill) {
        if (pieces.isEmpty()) {
            return NOTHING;
        }
        if (pieces.size() == 1 && pieces.getFirst().offset() == start) {
            // The usual program: one piece from the base on, as it is.
            return pieces.getFirst().bytes();
        }
        long length = pieces.stream().mapToLong(LoadedPiece::end).max().orElseThrow() - start;
        if (length > LONGEST) {
            return null;
        }
        byte[] bytes = new byte[(int) length];
        Arrays.fill(bytes, fill);
        for (LoadedPiece piece : pieces) {
            System.arraycopy(
                    piece.bytes(), 0, bytes, (int) (piece.offset() - start), piece.bytes().length);
        }
        return bytes;
    }

    /** The block: a memory is one, however many ports it has. */
    public String name() {
        return memory.block().name();
    }

    /** Whether there are contents in one piece. */
    public boolean isJoined() {
        return contents != null && contents.length > 0;
    }

    /** CRC-32 (IEEE 802.3) of contents in one piece. */
    public long crc32() {
        CRC32 crc = new CRC32();
        crc.update(contents);
        return crc.getValue();
    }

    /** All bytes of a memory that the bitstream fills, filled up behind the contents. */
    public byte[] whole(byte fill) {
        byte[] bytes = new byte[(int) memory.form().sizeBytes()];
        System.arraycopy(contents, 0, bytes, 0, contents.length);
        Arrays.fill(bytes, contents.length, bytes.length, fill);
        return bytes;
    }
}
