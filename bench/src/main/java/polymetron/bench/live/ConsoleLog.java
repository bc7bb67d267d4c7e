package polymetron.bench.live;

import java.io.ByteArrayOutputStream;
import java.util.Arrays;

/** What the console said: the last part of it, and how much there was in all. */
final class ConsoleLog {
    private static final int KEPT = 256 * 1024;

    private byte[] kept = {};
    private long total;

    void append(byte[] bytes) {
        ByteArrayOutputStream joined = new ByteArrayOutputStream(kept.length + bytes.length);
        joined.writeBytes(kept);
        joined.writeBytes(bytes);
        byte[] all = joined.toByteArray();
        kept = all.length > KEPT ? Arrays.copyOfRange(all, all.length - KEPT, all.length) : all;
        total += bytes.length;
    }

    /** Number of characters since the program was loaded. */
    long total() {
        return total;
    }

    /** What came after so many characters; older ones than are kept are left out. */
    byte[] since(long position) {
        long missing = Math.clamp(total - position, 0, kept.length);
        return Arrays.copyOfRange(kept, kept.length - (int) missing, kept.length);
    }
}
