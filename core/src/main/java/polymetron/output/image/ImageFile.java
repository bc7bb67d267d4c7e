package polymetron.output.image;

import java.util.zip.CRC32;

/** One output of an image. */
public record ImageFile(String name, String title, byte[] bytes) {
    /** CRC-32 (IEEE 802.3) of the file. */
    public long crc32() {
        CRC32 crc = new CRC32();
        crc.update(bytes);
        return crc.getValue();
    }
}
