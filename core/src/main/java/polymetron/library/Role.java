package polymetron.library;

/** The end of a memory-mapped transfer that a bus interface is (IEEE 1685-2022). */
public enum Role {
    INITIATOR("initiator"),
    TARGET("target");

    private final String word;

    Role(String word) {
        this.word = word;
    }

    @Override
    public String toString() {
        return word;
    }
}
