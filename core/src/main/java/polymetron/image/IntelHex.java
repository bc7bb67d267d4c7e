package polymetron.image;

import java.util.List;

/**
 * Writes Intel HEX (Intel Hexadecimal Object File Format Specification, revision A, 1988): data records of 16
 * bytes, extended linear address records, a start linear address record and the end record.
 */
public final class IntelHex {
    private static final int RECORD_BYTES = 16;
    private static final int DATA_CHARACTERS = ":10000000".length() + "00\n".length();
    private static final int UPPER_CHARACTERS = ":020000040000FA\n".length();
    private static final int START_CHARACTERS = ":0400000500000000F7\n".length();
    private static final int END_CHARACTERS = ":00000001FF\n".length();

    private IntelHex() {}

    /**
     * @param chunks by ascending address, below 2^32
     * @param entry address of the first instruction
     */
    public static byte[] write(List<Chunk> chunks, long entry) {
        HexText out = new HexText(lengthOf(chunks));
        long upper = 0;
        for (Chunk chunk : chunks) {
            int count;
            for (int at = 0; at < chunk.bytes().length; at += count) {
                long address = chunk.address() + at;
                if (address >>> 16 != upper) {
                    upper = address >>> 16;
                    int sum = 2 + 4 + sumOf(upper, 2);
                    out.put(':').put(0x02000004L, 4).put(upper, 2).put(-sum, 1).put('\n');
                }
                count = recordBytes(chunk, at);
                int sum = count + sumOf(address & 0xFFFF, 2);
                out.put(':').put((long) count << 24 | (address & 0xFFFF) << 8, 4);
                sum += out.put(chunk.bytes(), at, count);
                out.put(-sum, 1).put('\n');
            }
        }
        out.put(':').put(0x04000005L, 4).put(entry, 4).put(-(4 + 5 + sumOf(entry, 4)), 1).put('\n');
        out.put(':').put(0x00000001FFL, 5).put('\n');
        return out.bytes();
    }

    /** A record ends with its chunk, and where the upper half of the address changes. */
    private static int recordBytes(Chunk chunk, int at) {
        int toBoundary = (int) (0x1_0000 - (chunk.address() + at & 0xFFFF));
        return Math.min(Math.min(RECORD_BYTES, chunk.bytes().length - at), toBoundary);
    }

    /** Characters of the whole file. */
    private static int lengthOf(List<Chunk> chunks) {
        long length = START_CHARACTERS + END_CHARACTERS;
        long upper = 0;
        for (Chunk chunk : chunks) {
            long address = chunk.address();
            while (address < chunk.end()) {
                if (address >>> 16 != upper) {
                    upper = address >>> 16;
                    length += UPPER_CHARACTERS;
                }
                long count = Math.min(chunk.end(), (upper + 1) << 16) - address;
                long records = (count + RECORD_BYTES - 1) / RECORD_BYTES;
                length += records * DATA_CHARACTERS + 2 * count;
                address += count;
            }
        }
        return Math.toIntExact(length);
    }

    static int sumOf(long value, int bytes) {
        int sum = 0;
        for (int shift = 0; shift < 8 * bytes; shift += 8) {
            sum += (int) (value >>> shift) & 0xFF;
        }
        return sum;
    }
}
