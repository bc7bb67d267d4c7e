package polymetron.bench.behaviour;

/** A line through two flip-flops, of which pulses up to some length are not seen. */
final class FilteredLevel {
    private final int longestSpike;
    private boolean first = true;
    private boolean second = true;
    private boolean seen = true;
    private int differsFor;

    FilteredLevel(int longestSpike) {
        this.longestSpike = longestSpike;
    }

    boolean seen() {
        return seen;
    }

    void edge(boolean level) {
        differsFor = second == seen ? 0 : differsFor + 1;
        if (differsFor > longestSpike) {
            seen = second;
            differsFor = 0;
        }
        second = first;
        first = level;
    }

    void reset() {
        first = true;
        second = true;
        seen = true;
        differsFor = 0;
    }
}
