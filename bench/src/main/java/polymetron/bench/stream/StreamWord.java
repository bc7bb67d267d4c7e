package polymetron.bench.stream;

/**
 * A word of a stream with its marks. Nothing changes it once it is made.
 *
 * @param bytes the lowest first
 * @param keep which bytes count; null for all
 * @param last whether a packet ends with it
 */
public record StreamWord(byte[] bytes, boolean[] keep, boolean last) {
    private static final int SAMPLE_BYTES = 4;

    /** A word of 32 bits, all of which count. */
    public static StreamWord of(int value, boolean last) {
        byte[] bytes = new byte[SAMPLE_BYTES];
        for (int at = 0; at < SAMPLE_BYTES; at++) {
            bytes[at] = (byte) (value >> 8 * at);
        }
        return new StreamWord(bytes, null, last);
    }

    /** The lowest 32 bits. */
    public int low() {
        return part(0);
    }

    /** 32 bits of it; what is beyond its end is 0. */
    public int part(int number) {
        int value = 0;
        for (int at = 0; at < SAMPLE_BYTES; at++) {
            int from = SAMPLE_BYTES * number + at;
            value |= from < bytes.length ? (bytes[from] & 0xFF) << 8 * at : 0;
        }
        return value;
    }

    /** The lowest bits as a signed sample. */
    public int sample(int bits) {
        return low() << 32 - bits >> 32 - bits;
    }

    public boolean keeps(int at) {
        return keep == null || keep[at];
    }
}
