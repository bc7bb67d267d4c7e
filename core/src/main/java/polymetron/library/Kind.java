package polymetron.library;

/** What sort of thing a block type is; it decides where its ranges are placed and how software sees it. */
public enum Kind {
    PROCESSOR("processor"),
    MEMORY("memory"),
    PERIPHERAL("peripheral"),
    TIMER("timer"),
    INTERRUPT_CONTROLLER("interrupt-controller"),
    BRIDGE("bridge"),
    DATA_MOVER("data-mover"),
    STREAM("stream"),
    INFRASTRUCTURE("infrastructure");

    private final String word;

    Kind(String word) {
        this.word = word;
    }

    @Override
    public String toString() {
        return word;
    }
}
