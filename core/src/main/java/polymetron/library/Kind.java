package polymetron.library;

/** What sort of thing a block type is; it decides where its ranges are placed and how software sees it. */
public enum Kind {
    PROCESSOR("processor"),
    MEMORY("memory"),
    PERIPHERAL("peripheral"),
    TIMER("timer"),
    INTERRUPT_CONTROLLER("interrupt-controller"),
    BRIDGE("bridge");

    private final String word;

    Kind(String word) {
        this.word = word;
    }

    @Override
    public String toString() {
        return word;
    }
}
