package polymetron.library;

/** What software may do with a field (SystemRDL 2.0, 9.4: property {@code sw}). */
public enum SoftwareAccess {
    READ_ONLY("read-only"),
    WRITE_ONLY("write-only"),
    READ_WRITE("read-write");

    private final String word;

    SoftwareAccess(String word) {
        this.word = word;
    }

    public boolean reads() {
        return this != WRITE_ONLY;
    }

    public boolean writes() {
        return this != READ_ONLY;
    }

    @Override
    public String toString() {
        return word;
    }
}
