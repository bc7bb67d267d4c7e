package polymetron.elaborate;

/**
 * What the words of a stream carry besides their bits.
 *
 * @param packets the last word of a packet is marked
 * @param byteLanes which bytes of a word count is marked
 * @param sampleWidth bits of a sample in each word; 0 where the bytes are just bytes
 */
public record StreamTraits(boolean packets, boolean byteLanes, int sampleWidth) {
    /** Plain bytes without marks. */
    public static final StreamTraits NONE = new StreamTraits(false, false, 0);

    /** In words, empty for plain bytes. */
    public String words() {
        StringBuilder words = new StringBuilder();
        if (sampleWidth > 0) {
            words.append(", %s-bit samples".formatted(sampleWidth));
        }
        if (packets) {
            words.append(", packets");
        }
        if (byteLanes) {
            words.append(", byte lanes");
        }
        return words.isEmpty() ? "" : words.substring(2);
    }
}
