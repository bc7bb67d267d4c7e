package polymetron.output.image;

import java.util.ArrayList;
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
     * Bytes that share the upper half of their address, and the place of their records in the text. The length of
     * every record is known beforehand, so windows are written independently of each other, on all processors.
     */
    private record Window(Chunk chunk, int from, int count, boolean tellsUpper, int place) {
        int characters() {
            int records = (count + RECORD_BYTES - 1) / RECORD_BYTES;
            return (tellsUpper ? UPPER_CHARACTERS : 0) + records * DATA_CHARACTERS + 2 * count;
        }

        void write(byte[] text) {
            HexText out = new HexText(text, place);
            long address = chunk.address() + from;
            if (tellsUpper) {
                long upper = address >>> 16;
                int sum = 2 + 4 + sumOf(upper, 2);
                out.put(':').put(0x02000004L, 4).put(upper, 2).put(-sum, 1).put('\n');
            }
            int end = from + count;
            for (int at = from; at < end; at += RECORD_BYTES) {
                int bytes = Math.min(RECORD_BYTES, end - at);
                long low = chunk.address() + at & 0xFFFF;
                int sum = bytes + sumOf(low, 2);
                out.put(':').put((long) bytes << 24 | low << 8, 4);
                sum += out.put(chunk.bytes(), at, bytes);
                out.put(-sum, 1).put('\n');
            }
        }
    }

    /**
     * @param chunks by ascending address, below 2^32
     * @param entry address of the first instruction
     */
    public static byte[] write(List<Chunk> chunks, long entry) {
        List<Window> windows = windows(chunks);
        int data =
                windows.isEmpty() ? 0 : windows.getLast().place() + windows.getLast().characters();
        byte[] text = new byte[Math.addExact(data, START_CHARACTERS + END_CHARACTERS)];
        windows.parallelStream().forEach(window -> window.write(text));
        new HexText(text, data)
                .put(':')
                .put(0x04000005L, 4)
                .put(entry, 4)
                .put(-(4 + 5 + sumOf(entry, 4)), 1)
                .put('\n')
                .put(':')
                .put(0x00000001FFL, 5)
                .put('\n');
        return text;
    }

    private static List<Window> windows(List<Chunk> chunks) {
        List<Window> windows = new ArrayList<>();
        long upper = 0;
        int place = 0;
        for (Chunk chunk : chunks) {
            int from = 0;
            while (from < chunk.bytes().length) {
                long address = chunk.address() + from;
                boolean tellsUpper = address >>> 16 != upper;
                upper = address >>> 16;
                long count = Math.min(chunk.end(), (upper + 1) << 16) - address;
                Window window = new Window(chunk, from, (int) count, tellsUpper, place);
                windows.add(window);
                place = Math.addExact(place, window.characters());
                from += (int) count;
            }
        }
        return windows;
    }

    static int sumOf(long value, int bytes) {
        int sum = 0;
        for (int shift = 0; shift < 8 * bytes; shift += 8) {
            sum += (int) (value >>> shift) & 0xFF;
        }
        return sum;
    }
}
