package polymetron.output.image;

import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.List;

/**
 * Writes Motorola S-records with 32-bit addresses: S0 with the name, S3 with 16 bytes of data, S5 (or S6) with the
 * number of data records, S7 with the entry.
 */
public final class SRecord {
    private static final int RECORD_BYTES = 16;
    private static final int LONGEST_NAME = 32;

    private SRecord() {}

    /**
     * @param name put into the header record, cut after 32 characters
     * @param chunks by ascending address, below 2^32
     * @param entry address of the first instruction
     */
    public static byte[] write(String name, List<Chunk> chunks, long entry) {
        long total = chunks.stream().mapToLong(chunk -> chunk.bytes().length).sum();
        HexText out =
                new HexText(
                        (int) Math.min(Integer.MAX_VALUE - 64, total / RECORD_BYTES * 47 + 1024));
        byte[] header = name.getBytes(StandardCharsets.US_ASCII);
        record(
                out,
                '0',
                0,
                2,
                Arrays.copyOf(header, Math.min(header.length, LONGEST_NAME)),
                0,
                Math.min(header.length, LONGEST_NAME));
        long records = 0;
        for (Chunk chunk : chunks) {
            for (int at = 0; at < chunk.bytes().length; at += RECORD_BYTES) {
                int count = Math.min(RECORD_BYTES, chunk.bytes().length - at);
                record(out, '3', chunk.address() + at, 4, chunk.bytes(), at, count);
                records++;
            }
        }
        boolean few = records <= 0xFFFF;
        record(out, few ? '5' : '6', records, few ? 2 : 3, header, 0, 0);
        record(out, '7', entry, 4, header, 0, 0);
        return out.bytes();
    }

    private static void record(
            HexText out,
            char type,
            long address,
            int addressBytes,
            byte[] data,
            int from,
            int count) {
        int length = addressBytes + count + 1;
        int sum = length + IntelHex.sumOf(address, addressBytes);
        out.put('S').put(type).put(length, 1).put(address, addressBytes);
        sum += out.put(data, from, count);
        out.put(~sum, 1).put('\n');
    }
}
