package polymetron.image;

import java.util.zip.CRC32;
import polymetron.elaborate.TargetRange;

/**
 * What a program puts into one memory.
 *
 * @param contents bytes from the base to the last loaded byte, gaps filled
 * @param loadedBytes bytes that came from the program
 * @param zeroBytes bytes that the program clears or leaves open
 */
public record MemoryContents(
        TargetRange memory, byte[] contents, long loadedBytes, long zeroBytes) {
    public String name() {
        return memory.label().replace('.', '_');
    }

    /** CRC-32 (IEEE 802.3) of the contents. */
    public long crc32() {
        CRC32 crc = new CRC32();
        crc.update(contents);
        return crc.getValue();
    }

    /** All bytes of the memory, filled up behind the contents. */
    public byte[] whole(byte fill) {
        byte[] bytes = new byte[(int) memory.form().sizeBytes()];
        System.arraycopy(contents, 0, bytes, 0, contents.length);
        java.util.Arrays.fill(bytes, contents.length, bytes.length, fill);
        return bytes;
    }
}
