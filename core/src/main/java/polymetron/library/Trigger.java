package polymetron.library;

/** How an interrupt source signals. */
public enum Trigger {
    HIGH("high"),
    LOW("low"),
    EDGE("edge");

    private final String word;

    Trigger(String word) {
        this.word = word;
    }

    @Override
    public String toString() {
        return word;
    }
}
