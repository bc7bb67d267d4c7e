package polymetron.output.hardware;

/**
 * A stream of a block that stands alone, as a program drives it: numbers of the harness's inputs and outputs. Of a sink the program
 * gives words and sees whether one is taken, of a source the other way round.
 *
 * @param valid number of the input, of a source output, that says that there is a word
 * @param ready number of the output, of a source input, that says that a word is taken
 * @param word number of the first input, of a source output, with 64 bits of a word, the lowest first; behind the data come the bits
 *     that say which bytes count, and the one that says that a packet ends, where the block has them
 * @param parts how many of those there are
 */
public record HarnessStream(
        String name,
        boolean isSource,
        int valid,
        int ready,
        int word,
        int parts,
        int dataBits,
        boolean hasKeep,
        boolean hasLast) {
    /** Bits of a word with its marks. */
    public int bits() {
        return dataBits + (hasKeep ? dataBits / Byte.SIZE : 0) + (hasLast ? 1 : 0);
    }
}
