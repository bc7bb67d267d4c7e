package polymetron.library;

/** Direction of a port, seen from the FPGA. */
public enum Direction {
    IN("in"),
    OUT("out"),
    BOTH("both");

    private final String word;

    Direction(String word) {
        this.word = word;
    }

    /** What a person reads: an input, an output. */
    public String words() {
        return switch (this) {
            case IN -> "input";
            case OUT -> "output";
            case BOTH -> "input and output";
        };
    }

    @Override
    public String toString() {
        return word;
    }
}
