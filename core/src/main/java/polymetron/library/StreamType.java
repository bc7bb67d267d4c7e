package polymetron.library;

import polymetron.expression.Expression;

/**
 * A stream interface of a block type: words that flow one way, with a handshake (AXI4-Stream, Arm IHI 0051).
 *
 * @param title what a person calls it
 * @param dataWidth bits of a word, whole bytes
 * @param packets whether a source marks the last word of a packet, or a sink needs that mark; null for no
 * @param byteLanes whether a source marks which bytes of a word count, or a sink heeds that; null for no
 * @param sampleWidth bits of a sample in each word; null where the bytes are just bytes
 * @param when whether the interface is there; null for always
 * @param clock clock input that it belongs to; null for the block's first
 * @param passes sink of the same block whose marks and samples a source hands on; null when it makes its own
 */
public record StreamType(
        String name,
        String title,
        End end,
        Expression dataWidth,
        Expression packets,
        Expression byteLanes,
        Expression sampleWidth,
        Expression when,
        String clock,
        String passes) {
    /** Which end of a stream an interface is. */
    public enum End {
        SOURCE("source"),
        SINK("sink");

        private final String word;

        End(String word) {
            this.word = word;
        }

        @Override
        public String toString() {
            return word;
        }
    }
}
