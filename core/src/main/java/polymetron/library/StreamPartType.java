package polymetron.library;

import java.util.List;

/**
 * What makes a block type a piece of plumbing that is put between a stream source and its sink where they differ.
 *
 * @param sort what it settles
 * @param sink its sink
 * @param sources its sources
 * @param inWidth parameter for the width of its sink
 * @param outWidth parameter for the width of its source; null when both are equal
 * @param outputs parameter for the number of sources; null for one
 * @param sourceClock clock input of its source; null when there is one clock only
 * @param sourceReset reset input that belongs to that clock; null when there is one only
 */
public record StreamPartType(
        Sort sort,
        String sink,
        List<String> sources,
        String inWidth,
        String outWidth,
        String outputs,
        String sourceClock,
        String sourceReset) {
    /** What differs between the ends. */
    public enum Sort {
        WIDTH("width"),
        CLOCK("clock"),
        SPLITTER("splitter");

        private final String word;

        Sort(String word) {
            this.word = word;
        }

        @Override
        public String toString() {
            return word;
        }
    }

    public StreamPartType {
        sources = Lists.orEmpty(sources);
    }
}
