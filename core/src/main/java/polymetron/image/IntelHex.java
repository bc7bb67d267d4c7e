package polymetron.image;

import java.util.List;

/**
 * Writes Intel HEX (Intel Hexadecimal Object File Format Specification, revision A, 1988): data records of 16
 * bytes, extended linear address records, a start linear address record and the end record.
 */
public final class IntelHex {
    private static final int RECORD_BYTES = 16;

    private IntelHex() {}

    /**
     * @param chunks by ascending address, below 2^32
     * @param entry address of the first instruction
     */
    public static byte[] write(List<Chunk> chunks, long entry) {
        long total = chunks.stream().mapToLong(chunk -> chunk.bytes().length).sum();
        HexText out =
                new HexText(
                        (int) Math.min(Integer.MAX_VALUE - 64, total / RECORD_BYTES * 44 + 1024));
        long upper = 0;
        for (Chunk chunk : chunks) {
            int at = 0;
            while (at < chunk.bytes().length) {
                long address = chunk.address() + at;
                if (address >>> 16 != upper) {
                    upper = address >>> 16;
                    int sum = 2 + 4 + sumOf(upper, 2);
                    out.put(':').put(0x02000004L, 4).put(upper, 2).put(-sum, 1).put('\n');
                }
                int toBoundary = (int) (0x1_0000 - (address & 0xFFFF));
                int count = Math.min(Math.min(RECORD_BYTES, chunk.bytes().length - at), toBoundary);
                int sum = count + sumOf(address & 0xFFFF, 2);
                out.put(':').put(count, 1).put(address & 0xFFFF, 2).put(0, 1);
                sum += out.put(chunk.bytes(), at, count);
                out.put(-sum, 1).put('\n');
                at += count;
            }
        }
        out.put(':').put(0x04000005L, 4).put(entry, 4).put(-(4 + 5 + sumOf(entry, 4)), 1).put('\n');
        out.put(':').put(0x00000001FFL, 5).put('\n');
        return out.bytes();
    }

    static int sumOf(long value, int bytes) {
        int sum = 0;
        for (int shift = 0; shift < 8 * bytes; shift += 8) {
            sum += (int) (value >>> shift) & 0xFF;
        }
        return sum;
    }
}
